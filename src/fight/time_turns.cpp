#include "fight/time_turns.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <string_view>

namespace panoplon {

namespace {

/// How often a text has a whole name.
int count_name(std::string_view text, std::string_view name) {
    int count = 0;
    for (std::size_t at = text.find(name); at != std::string_view::npos;
         at = text.find(name, at + 1)) {
        const std::size_t end = at + name.size();
        const bool whole = (at == 0 || !is_of_name(text[at - 1])) &&
                           (end == text.size() || !is_of_name(text[end]));
        count += whole;
    }
    return count;
}

bool ends_operand(char c) {
    return c == '&' || c == '|' || c == '?' || c == ':' || c == ',' || c == '<' || c == '>' ||
           c == '=' || c == '!';
}

std::string_view operand_before(std::string_view text, std::size_t sign) {
    int depth = 0;
    std::size_t from = sign;
    while (from > 0) {
        const char c = text[from - 1];
        if (depth == 0 && (c == '(' || ends_operand(c))) break;
        depth += (c == ')') - (c == '(');
        --from;
    }
    return trim(text.substr(from, sign - from));
}

std::string_view operand_after(std::string_view text, std::size_t from) {
    int depth = 0;
    std::size_t to = from;
    while (to < text.size()) {
        const char c = text[to];
        if (depth == 0 && (c == ')' || ends_operand(c))) break;
        depth += (c == '(') - (c == ')');
        ++to;
    }
    return trim(text.substr(from, to - from));
}

/// A comparison as it stands in a text.
struct Comparison {
    std::string_view left, sign, right;
};

std::vector<Comparison> comparisons_of(std::string_view text) {
    constexpr std::string_view signs[] = {"<=", ">=", "==", "!=", "<", ">"};
    std::vector<Comparison> list;
    for (std::size_t at = 0; at < text.size(); ++at)
        for (const std::string_view sign : signs)
            if (text.substr(at).starts_with(sign)) {
                const std::size_t end = at + sign.size();
                list.push_back({operand_before(text, at), sign, operand_after(text, end)});
                at = end - 1;
                break;
            }
    return list;
}

bool stands_still(const Formula& formula) {
    return std::none_of(formula.variables.begin(), formula.variables.end(), [](const Variable& v) {
        const bool stat = v.block == Block::self_stat || v.block == Block::other_stat;
        return v.block == Block::scalar ? v.index == static_cast<std::uint16_t>(Scalar::time)
                                        : !stat;
    });
}

/// A part of a formula as one of its own.
Formula part_of(const Formula& whole, std::string_view text) {
    Formula part{std::string(text), whole.span, {}};
    for (const Variable& variable : whole.variables)
        if (count_name(text, variable.name) > 0) part.variables.push_back(variable);
    return part;
}

constexpr std::string_view time_name = "time";

} // namespace

TimeTurns::TimeTurns(const Formula& condition) {
    int exact = 0;
    for (const Comparison& one : comparisons_of(condition.text)) {
        const bool left = one.left == time_name;
        if (left == (one.right == time_name)) continue;
        const Formula other = part_of(condition, left ? one.right : one.left);
        if (!stands_still(other)) continue;
        const bool equal = one.sign == "==" || one.sign == "!=";
        const bool at = one.sign == (left ? ">=" : "<=") || one.sign == (left ? "<" : ">");
        meetings_.push_back({Evaluator(other), at || equal, !at || equal});
        ++exact;
    }
    anywhere_ = count_name(condition.text, time_name) > exact;
}

Ticks TimeTurns::next(Ticks now, const Environment& environment) {
    constexpr Ticks step = ticks_per_unit / 10;
    Ticks first = anywhere_ ? (std::floor(now / step) + 1) * step : never;
    for (Meeting& meeting : meetings_) {
        const double units = meeting.other(environment);
        if (!std::isfinite(units)) continue; // whoever looks at the condition says so
        Ticks at = to_ticks(units);
        if (to_units(at) < units) at += 1;
        const Ticks after = to_units(at) > units ? at : at + 1;
        if (meeting.at && at > now) first = std::min(first, at);
        if (meeting.after && after > now) first = std::min(first, after);
    }
    return first;
}

} // namespace panoplon
