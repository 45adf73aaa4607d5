#include "formula/simple_formula.h"

#include "formula/formula.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>
#include <rapidcheck/catch.h>

using namespace panoplon;

TEST_CASE("a formula of one operation is known as one, and nothing else is") {
    for (const char* text : {"x", " x ", "x / 100", "x<0.45", "2 * x", "1 - x", "x >= 3e2", "x+1."})
        CHECK(simple_formula(text, "x").has_value());
    for (const char* text : {"", "1", "xy", "x y", "x + x", "x / 100 / 2", "-x", "x < 0.4 && 1",
                             "x ^ 2", "x == 1", "(x)", "x * -2", "1 * 2", "x < y", "2x", "x <"})
        CHECK_FALSE(simple_formula(text, "x").has_value());
}

TEST_CASE("it gives what the parser gives, bitwise") {
    rc::prop("random operations", [] {
        const std::vector<std::string> stats = {"a"};
        const std::vector<std::string> signs = {"+", "-", "*", "/", "<", "<=", ">", ">="};
        const double number = *rc::gen::inRange(0, 1000) / 8.0;
        const std::string sign = signs[*rc::gen::inRange<std::size_t>(0, signs.size())];
        const bool first = *rc::gen::arbitrary<bool>();
        const std::string simple = first ? fmt::format("self.a {} {}", sign, number)
                                         : fmt::format("{} {} self.a", number, sign);
        RC_ASSERT(simple_formula(simple, "self.a").has_value());
        const Scope scope{stats, {}, {}, true, true, true, false, false};
        const auto value = [&](const std::string& text, double x) {
            Environment env;
            env.self.stats = &x;
            return Evaluator(parse_formula(text, {}, scope).formula)(env);
        };
        // Often at the number itself: there < and <= part.
        const double x =
            *rc::gen::arbitrary<bool>() ? number : *rc::gen::inRange(-1000, 1000) / 8.0;
        const double plain = value(simple, x);
        const double parsed = value("(" + simple + ")", x); // brackets are for the parser
        RC_ASSERT(plain == parsed || (std::isnan(plain) && std::isnan(parsed)));
    });
}
