// Formulas of one operation, as most are: computed without the parser's machinery. They give what
// the parser gives, bitwise.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace panoplon {

/// `x`, `x op number` or `number op x`, where x is the one variable.
struct SimpleFormula {
    enum class Operation { none, add, subtract, multiply, divide, less, at_most, more, at_least };

    Operation operation = Operation::none; ///< none: the variable itself
    double number = 0;
    bool variable_first = true;

    [[nodiscard]] double operator()(double x) const {
        const double left = variable_first ? x : number;
        const double right = variable_first ? number : x;
        switch (operation) {
        case Operation::none: return x;
        case Operation::add: return left + right;
        case Operation::subtract: return left - right;
        case Operation::multiply: return left * right;
        case Operation::divide: return left / right;
        case Operation::less: return left < right ? 1 : 0;
        case Operation::at_most: return left <= right ? 1 : 0;
        case Operation::more: return left > right ? 1 : 0;
        case Operation::at_least: return left >= right ? 1 : 0;
        }
        return x;
    }
};

/// None where the text is anything else. `variable`: the name of the one that it has.
[[nodiscard]] std::optional<SimpleFormula> simple_formula(std::string_view text,
                                                          std::string_view variable);

} // namespace panoplon
