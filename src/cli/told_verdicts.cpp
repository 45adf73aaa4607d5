#include "cli/told_verdicts.h"

#include "armoury/content.h"

#include <filesystem>
#include <fmt/chrono.h>

namespace panoplon {

namespace {

std::uint64_t key_of(const std::string& folder) {
    std::error_code error;
    return hash_text("told " + std::filesystem::weakly_canonical(folder, error).string());
}

bool is_of_a_part(const Invocation& invocation) {
    constexpr std::string_view narrowing[] = {"set",    "level", "character", "encounter", "step",
                                              "sample", "item",  "slot",      "tier"};
    return std::any_of(std::begin(narrowing), std::end(narrowing),
                       [&](std::string_view option) { return invocation.has(option); });
}

} // namespace

void keep_told(Memory& memory, const Invocation& invocation, const ReadArmoury& read,
               const AuditResult& audit) {
    if (audit.partial || was_interrupted() || is_of_a_part(invocation)) return;
    const Content content = content_of(read);
    Json items = Json::object();
    const auto add = [&](const ItemVerdict& verdict) {
        items[read.armoury.at(verdict.item).id] = {verdict_name(verdict.verdict), verdict.sentence,
                                                   content.items[verdict.item.index()]};
    };
    for (const ItemVerdict& verdict : audit.items) add(verdict);
    for (const ConsumableVerdict& verdict : audit.consumables) add(verdict.judged);
    std::string bytes;
    Json::to_cbor({{"time", std::time(nullptr)}, {"items", std::move(items)}}, bytes);
    memory.keep(key_of(invocation.operands().front()), bytes);
}

ToldAudit find_told(Memory& memory, const std::string& folder) {
    const std::uint64_t key = key_of(folder);
    const auto bytes = memory.find(key);
    if (!bytes) return {};
    try {
        ToldAudit told;
        const Json kept = Json::from_cbor(*bytes);
        told.time =
            fmt::format("{:%Y-%m-%d %H:%M}", fmt::localtime(kept.at("time").get<std::time_t>()));
        for (const auto& [id, item] : kept.at("items").items())
            told.items[id] = {item.at(0), item.at(1), item.at(2)};
        return told;
    } catch (const Json::exception&) { // not as it was written
        memory.reject(key);
        return {};
    }
}

} // namespace panoplon
