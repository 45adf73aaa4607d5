#include "formula/formula.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;

namespace {

const std::vector<std::string> stats_known = {"attack", "guard"};
const std::vector<std::string> pools = {"health"};
const Scope everything{stats_known, pools, {}, true, true, true, true};

double value_of(const std::string& text, const Environment& environment = {}) {
    const ParsedFormula parsed = parse_formula(text, {}, everything);
    INFO(text);
    REQUIRE(parsed.mistakes.empty());
    return Evaluator(parsed.formula)(environment);
}

std::string mistake_in(const std::string& text, const Scope& scope = everything) {
    const ParsedFormula parsed = parse_formula(text, {}, scope);
    return parsed.mistakes.empty() ? "" : parsed.mistakes.front().message;
}

} // namespace

TEST_CASE("formulas reckon with the usual operators and the documented functions") {
    CHECK(value_of("1 + 2 * 3") == 7);
    CHECK(value_of("2 ^ 3") == 8);
    CHECK(value_of("clamp(5, 0, 1)") == 1);
    CHECK(value_of("min(3, 2, 9) + max(1, 4)") == 6);
    CHECK(value_of("floor(1.7) + ceil(1.2) + round(2.5)") == 6);
    CHECK(value_of("1 < 2 && 2 < 3 ? 10 : 20") == 10);
    CHECK(value_of("12 * 1.09^2") == Approx(14.2572));
    CHECK(value_of("sqrt(16) + abs(-2) + ln(exp(1))") == Approx(7));
}

TEST_CASE("formulas see both sides, shares of pools and the clock") {
    const double mine[] = {30, 5};
    const double theirs[] = {1, 40};
    const double pool[] = {25};
    const double ceiling[] = {100};
    Environment environment;
    environment.self = {mine, pool, ceiling};
    environment.other = {theirs, nullptr, nullptr};
    environment[Scalar::time] = 12;
    environment[Scalar::level] = 3;
    CHECK(value_of("self.attack - other.guard", environment) == -10);
    CHECK(value_of("self.health_share", environment) == 0.25);
    CHECK(value_of("self.health + other.health", environment) == 25);
    CHECK(value_of("time * level", environment) == 36);
}

TEST_CASE("what the parser would misread in silence is a mistake at its place") {
    const auto at = [](const std::string& text) {
        const ParsedFormula parsed = parse_formula(text, {}, everything);
        INFO(text);
        REQUIRE(parsed.mistakes.size() == 1);
        return parsed.mistakes.front().offset;
    };
    CHECK(at("2,5 * level") == 1);
    CHECK(parse_formula("2,5 * level", {}, everything).mistakes[0].hint ==
          "numbers have a decimal point: 2.5");
    CHECK(at("(2,5) * level") == 2);
    CHECK(at("max(1, 2) + (level, 3)") == 18);
    CHECK(at("level, 3") == 5);
    CHECK(at("level = 5") == 6);
    CHECK(at("self.attack = 5 ? 1 : 2") == 12);
    CHECK(value_of("max(2, 5) * (level == 0)") == 5);
    CHECK(value_of("level <= 5 && level >= 0 && level != 3") == 1);
}

TEST_CASE("formulas see pools to nine decimals", "[M12a]") {
    const double ceiling[] = {1};
    const auto below = [&](double pool, const char* text) {
        Environment environment;
        environment.self = {nullptr, &pool, ceiling};
        return value_of(text, environment) != 0;
    };
    const double hair = 0.4 - 1e-15;
    REQUIRE(hair < 0.4);
    CHECK_FALSE(below(hair, "self.health < 0.4"));
    CHECK_FALSE(below(hair, "self.health_share < 0.4"));
    CHECK(below(0.4 - 1e-8, "self.health < 0.4"));
    CHECK(below(0.4 - 1e-8, "self.health_share < 0.4"));
}

TEST_CASE("an evaluator follows its inputs") {
    double mine[] = {1, 0};
    Environment environment;
    environment.self.stats = mine;
    Evaluator evaluator(parse_formula("self.attack * 2", {}, everything).formula);
    CHECK(evaluator(environment) == 2);
    mine[0] = 7;
    CHECK(evaluator(environment) == 14);
    CHECK(evaluator(environment) == 14);
    CHECK(evaluator.last_inputs() == "self.attack = 7");
}

TEST_CASE("what is not finite is handed on, not hidden", "[M66]") {
    CHECK(std::isinf(value_of("1 / 0")));
    CHECK(std::isnan(value_of("0 / 0")));
}

TEST_CASE("every unknown name of a formula is told, with what was meant") {
    CHECK(mistake_in("self.gaurd + 1") ==
          "unknown name 'self.gaurd' in a formula; did you mean 'self.guard'?");
    CHECK(mistake_in("maxx(1, 2)") == "unknown function 'maxx' in a formula; did you mean 'max'?");
    CHECK(mistake_in("sin(1)").starts_with("unknown function 'sin'"));
    CHECK(parse_formula("self.a1 + self.b2 + nothing", {}, everything).mistakes.size() == 3);
}

TEST_CASE("names stand only where they have a meaning") {
    const Scope self_only{stats_known, pools, {}, true, false, true, false};
    CHECK(mistake_in("other.guard", self_only).starts_with("unknown name 'other.guard'"));
    CHECK(mistake_in("amount", self_only).starts_with("unknown name 'amount'"));
    CHECK(mistake_in("self.health", {stats_known, pools, {}, false, false, false, false})
              .starts_with("unknown name"));
}

TEST_CASE("a formula that can't be parsed is a mistake, not a crash") {
    for (const char* text : {"", "1 +", "(1", "1)", "* 2", "1 2", "self.", "clamp(1)", "\"x\"",
                             "a = 3", "1 ? 2", "((((((", ","}) {
        INFO(text);
        CHECK_FALSE(mistake_in(text).empty());
    }
    CHECK(mistake_in(std::string(5000, '(')).starts_with("a formula of 5000 letters"));
    CHECK_FALSE(mistake_in(std::string(1990, '(')).empty());
}
