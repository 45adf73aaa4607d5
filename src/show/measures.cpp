#include "show/measures.h"

#include "base/text.h"

#include <fmt/format.h>

namespace panoplon {

Json estimate_json(const Estimate& e) {
    return {{"mean", e.mean}, {"low", e.low}, {"high", e.high}};
}

std::string estimate_words(const Estimate& e, int places) {
    return fmt::format("{:.{}f} ({:.{}f}–{:.{}f})", e.mean, places, e.low, places, e.high, places);
}

std::string share_words(const Estimate& e) {
    return fmt::format("{} ({}–{})", percent(e.mean), rounded(e.low * 100, 1), percent(e.high));
}

std::string margin_words(const Margin& margin) {
    switch (margin.reach) {
    case Reach::below:
        return "under 1/64: lost even against foes at a sixty-fourth of their strength";
    case Reach::above: return "over 64: won even against foes 64 times as strong";
    case Reach::within: break;
    }
    return fmt::format("{:.3f}", margin.value);
}

const char* unit_of(const Armoury& armoury) {
    return armoury.clock == Clock::seconds ? "s" : "rounds";
}

} // namespace panoplon
