// An amount of a definition that is a number, or a formula that gives it.
#pragma once

#include "formula/formula.h"

namespace panoplon {

struct Quantity {
    double number = 0;
    Formula formula; ///< given: its value counts, and not the number

    Quantity() = default;
    Quantity(double of) : number(of) {} // NOLINT: a number is one
    explicit Quantity(Formula of) : formula(std::move(of)) {}

    [[nodiscard]] bool fixed() const { return !formula.given(); }
    [[nodiscard]] bool is(double value) const { return fixed() && number == value; }
    /// As it stands in the files.
    [[nodiscard]] std::string text() const;
};

} // namespace panoplon
