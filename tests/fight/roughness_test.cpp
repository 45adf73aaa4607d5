// How rough even luck is near an outfit.
#include "fight/roughness.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

double roughness_in(const std::string& text) {
    const Armoury a = armoury(text);
    Bout bout(a, "bare", "bites");
    return roughness_near(bout.engine, bout.setup.actors.front(), bout.margin().value);
}

/// Blows flow, so a margin by even luck follows the hero's health without a step.
const std::string smooth = duel() + biter(500);

} // namespace

TEST_CASE("roughness: where blows flow and nothing is used, a margin moves without a step",
          "[M69b]") {
    CHECK(roughness_in(smooth) < 3e-4);
}

TEST_CASE("roughness: a health that is rounded moves a margin in steps", "[M69b]") {
    const auto rounded = [](const std::string& how, const std::string& health) {
        return with(with(smooth, "[stat.max_health]", "[stat.max_health]\nround = \"" + how + "\""),
                    "base = { max_health = 100,", "base = { max_health = " + health + ",");
    };
    CHECK(roughness_in(rounded("nearest", "400")) < 3e-4); // 398 to 402: each is a whole one
    // Of 101: 100, 100, 101, 101, 101. Both strike once a time, and strength makes the biter's
    // health and its blows more, so a margin is a square root of the hero's health. In steps of
    // it 0, 0, 1, 1, 1 have the mean 0.6 and the slope 0.3: the third is the furthest, by 0.4.
    const double step = std::log(101.0 / 100) / 2;
    CHECK(roughness_in(rounded("down", "101")) == Approx(std::expm1(0.4 * step)).margin(2e-4));
}

TEST_CASE("roughness: the engine fights as before afterwards", "[M69b]") {
    const Armoury a = armoury(smooth);
    Bout bout(a, "bare", "bites");
    const double margin = bout.margin().value;
    (void)roughness_near(bout.engine, bout.setup.actors.front(), margin);
    CHECK(bout.margin().value == margin);
}
