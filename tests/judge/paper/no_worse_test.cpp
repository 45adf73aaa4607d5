// Rows that are no worse than others in every column, against the plain double loop.
#include "judge/paper/no_worse.h"

#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;

namespace {

using Pairs = std::vector<std::pair<std::size_t, std::size_t>>;

bool no_worse(double a, double b, Better better) {
    if (a == b) return true;
    return better == Better::higher ? a > b : better == Better::lower && a < b;
}

Pairs by_loop(std::size_t rows, const std::vector<Column>& columns) {
    Pairs pairs;
    for (std::size_t b = 0; b < rows; ++b)
        for (std::size_t a = 0; a < rows; ++a) {
            bool all = a != b;
            for (const Column& column : columns)
                all = all && no_worse(column.values[a], column.values[b], column.better);
            if (all) pairs.emplace_back(a, b);
        }
    return pairs;
}

Pairs by_bits(std::size_t rows, const std::vector<Column>& columns) {
    Pairs pairs;
    const NoWorse no_worse(rows, columns);
    for (std::size_t b = 0; b < rows; ++b)
        no_worse.for_each(b, [&](std::size_t a) { pairs.emplace_back(a, b); });
    return pairs;
}

} // namespace

TEST_CASE("who is no worse is found as by comparing every two", "[M82]") {
    rc::prop("random tables", [] {
        const auto rows = *rc::gen::inRange<std::size_t>(0, 150);
        const auto count = *rc::gen::inRange<std::size_t>(0, 4);
        std::vector<Column> columns(count);
        for (Column& column : columns) {
            const auto values = *rc::gen::container<std::vector<int>>(rows, rc::gen::inRange(0, 5));
            column.values.assign(values.begin(), values.end());
            column.better = *rc::gen::element(Better::higher, Better::lower, Better::neither);
        }
        RC_ASSERT(by_bits(rows, columns) == by_loop(rows, columns));
    });
}

TEST_CASE("rows that differ in nothing are no worse than one another", "[M82]") {
    for (const std::size_t rows : {0, 1, 63, 64, 65, 130})
        CHECK(by_bits(rows, {}).size() == rows * (rows > 0 ? rows - 1 : 0));
}

TEST_CASE("a table of several stripes is compared whole, also where they end", "[M82]") {
    for (const std::size_t rows : {1023, 1024, 1025, 2100}) {
        std::vector<Column> columns(3);
        columns[1].better = Better::lower;
        columns[2].better = Better::neither;
        for (std::size_t row = 0; row < rows; ++row) {
            columns[0].values.push_back(static_cast<double>(row * 37 % 101));
            columns[1].values.push_back(static_cast<double>(row * 53 % 89));
            columns[2].values.push_back(static_cast<double>(row % 7));
        }
        CHECK((by_bits(rows, columns) == by_loop(rows, columns)));
    }
}
