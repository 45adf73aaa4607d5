#include "chance/draws.h"
#include "chance/estimate.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <rapidcheck/catch.h>
#include <vector>

using namespace panoplon;

TEST_CASE("a draw depends on its address alone", "[M67]") {
    const BlowDraws first = blow_draws({7, 3}, 1, 42);
    static_cast<void>(blow_draws({7, 3}, 1, 43));
    const BlowDraws again = blow_draws({7, 3}, 1, 42);
    CHECK(first.hit == again.hit);
    CHECK(first.spread == again.spread);
    CHECK(first.hit != blow_draws({8, 3}, 1, 42).hit);
    CHECK(first.hit != blow_draws({7, 4}, 1, 42).hit);
    CHECK(first.hit != blow_draws({7, 3}, 0, 42).hit);
}

TEST_CASE("draws are uniform in 0 to below 1 and independent of their kind", "[M63]") {
    constexpr int n = 100000;
    double sum = 0, squares = 0, product = 0;
    for (int i = 0; i < n; ++i) {
        const BlowDraws d = blow_draws({1, 0}, 0, static_cast<std::uint64_t>(i));
        for (const double u : {d.hit, d.crit, d.spread, d.apply}) {
            REQUIRE(u >= 0);
            REQUIRE(u < 1);
        }
        sum += d.hit;
        squares += d.hit * d.hit;
        product += (d.hit - 0.5) * (d.crit - 0.5);
    }
    CHECK(sum / n == Approx(0.5).margin(0.005));
    CHECK(squares / n == Approx(1.0 / 3).margin(0.005));
    CHECK(product / n == Approx(0).margin(0.002));
}

TEST_CASE("0 never happens and 1 always does", "[M63]") {
    rc::prop("for any draw", [] {
        const BlowDraws d = blow_draws(
            {*rc::gen::arbitrary<std::uint64_t>(), *rc::gen::arbitrary<std::uint64_t>()}, 0, 0);
        RC_ASSERT_FALSE(happens(0, d.hit));
        RC_ASSERT(happens(1, d.hit));
    });
}

TEST_CASE("Wilson's interval holds the share and stays in 0 to 1") {
    const Estimate half = estimate_share(50, 100);
    CHECK(half.low == Approx(0.4038).margin(0.0005));
    CHECK(half.high == Approx(0.5962).margin(0.0005));
    CHECK(estimate_share(0, 10).low == 0);
    CHECK(estimate_share(0, 10).high == Approx(0.2775).margin(0.0005));
    CHECK(estimate_share(10, 10).high == 1);
}

TEST_CASE("the interval of a mean is Student's") {
    Moments moments;
    for (const double x : {1.0, 2.0, 3.0, 4.0, 5.0}) moments.add(x);
    const Estimate e = estimate_mean(moments);
    CHECK(e.mean == 3);
    CHECK(e.high - e.mean == Approx(2.7764 * std::sqrt(2.5 / 5)).epsilon(1e-4));
    Moments one;
    one.add(4);
    CHECK(estimate_mean(one).low == 4);
}

TEST_CASE("quantiles are interpolated between neighbours") {
    const std::vector<double> values = {1, 2, 3, 4};
    CHECK(quantile(values, 0) == 1);
    CHECK(quantile(values, 1) == 4);
    CHECK(quantile(values, 0.5) == 2.5);
}
