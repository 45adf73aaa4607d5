#include "armoury/cell_numbers.h"

#include "base/text.h"

#include <algorithm>
#include <charconv>
#include <iterator>
#include <vector>

namespace panoplon {

namespace {

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}

bool all_digits(std::string_view text) {
    return !text.empty() && std::all_of(text.begin(), text.end(), is_digit);
}

/// Digits in groups of three, but for the first.
bool in_thousands(const std::vector<std::string>& groups) {
    if (groups.size() < 2 || !all_digits(groups.front()) || groups.front().size() > 3 ||
        groups.front() == "0")
        return false;
    return std::all_of(groups.begin() + 1, groups.end(), [](const std::string& group) {
        return group.size() == 3 && all_digits(group);
    });
}

std::string without(std::string_view text, std::string_view signs) {
    std::string left;
    std::copy_if(text.begin(), text.end(), std::back_inserter(left),
                 [&](char c) { return signs.find(c) == std::string_view::npos; });
    return left;
}

/// Spaces between thousands, of whatever width, gone.
std::string without_spaces(std::string text) {
    for (const std::string_view space : {"\xc2\xa0", "\xe2\x80\xaf", "\xe2\x80\x89"})
        for (std::size_t at = text.find(space); at != std::string::npos; at = text.find(space, at))
            text.replace(at, space.size(), " ");
    const std::size_t decimals = std::min(text.find_first_of(".,"), text.size());
    const std::string whole = text.substr(0, decimals);
    return in_thousands(split(whole, ' ')) ? without(whole, " ") + text.substr(decimals) : text;
}

struct Reading {
    std::optional<double> value, other;
};

/// Digits with one kind of sign in it: decimals after it, or thousands between it.
Reading with_one_sign(const std::string& digits, char sign, bool is_decimal_by_rule) {
    const std::vector<std::string> groups = split(digits, sign);
    std::string as_point = digits;
    std::replace(as_point.begin(), as_point.end(), sign, '.');
    const auto decimal = groups.size() == 2 && all_digits(groups[0] + groups[1])
                             ? plain_number(as_point)
                             : std::nullopt;
    const auto thousands = in_thousands(groups)
                               ? plain_number(without(digits, std::string_view(&sign, 1)))
                               : std::nullopt;
    if (decimal && is_decimal_by_rule) return {decimal, std::nullopt};
    if (decimal && thousands) return {decimal, thousands};
    return {decimal ? decimal : thousands, std::nullopt};
}

Reading read_digits(const std::string& digits, bool decimal_commas) {
    const std::size_t point = digits.rfind('.');
    const std::size_t comma = digits.rfind(',');
    if (point == std::string::npos && comma == std::string::npos)
        return {plain_number(digits), std::nullopt};
    if (comma == std::string::npos) {
        if (digits.find_first_of("eE") != std::string::npos)
            return {plain_number(digits), std::nullopt};
        return with_one_sign(digits, '.', !decimal_commas);
    }
    if (point == std::string::npos) return with_one_sign(digits, ',', false);
    const char thousands = point < comma ? '.' : ',';
    const std::size_t decimals = std::max(point, comma);
    const std::string whole = digits.substr(0, decimals);
    if (!in_thousands(split(whole, thousands)) || !all_digits(digits.substr(decimals + 1)))
        return {};
    return {plain_number(without(whole, std::string_view(&thousands, 1)) + "." +
                         digits.substr(decimals + 1)),
            std::nullopt};
}

} // namespace

std::optional<double> plain_number(std::string_view text) {
    double number = 0;
    const char* end = text.data() + text.size();
    const auto [stopped, error] = std::from_chars(text.data(), end, number);
    if (error != std::errc() || stopped != end || text.empty()) return std::nullopt;
    return number;
}

CellNumber number_of_cell(std::string_view text, bool decimal_commas) {
    CellNumber number;
    std::string digits(trim(text));
    if (digits.ends_with('%')) {
        number.percentage = true;
        digits.pop_back();
    }
    digits = without_spaces(std::string(trim(digits)));
    if (number.percentage && digits.ends_with(' ')) digits.pop_back();
    constexpr std::string_view minus = "\xe2\x88\x92"; // as word processors write it
    bool negative = digits.starts_with('-');
    if (digits.starts_with(minus)) {
        negative = true;
        digits.erase(0, minus.size());
    } else if (negative || digits.starts_with('+')) {
        digits.erase(0, 1);
    }
    if (digits.empty() || (!is_digit(digits.front()) && digits.front() != '.')) {
        // inf and nan are numbers that the check of bounds refuses in words of its own
        number.value = number.percentage ? std::nullopt : plain_number(text);
        return number;
    }
    const Reading reading = read_digits(digits, decimal_commas);
    const double sign = negative ? -1 : 1;
    if (reading.value) number.value = sign * *reading.value;
    if (reading.other) number.other = sign * *reading.other;
    return number;
}

bool is_decimal_comma(std::string_view text) {
    const std::size_t comma = text.find(',');
    if (comma == std::string_view::npos || text.find(',', comma + 1) != std::string_view::npos)
        return false;
    const std::size_t point = text.rfind('.');
    const CellNumber number = number_of_cell(text, false);
    return number.value && !number.other && (point == std::string_view::npos || point < comma);
}

} // namespace panoplon
