#include "formula/formula.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <muParser.h>

namespace panoplon {

bool is_of_name(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' ||
           c == '.';
}

namespace {

double clamp_to(double x, double low, double high) {
    return std::min(std::max(x, low), high);
}
double round_down(double x) {
    return std::floor(x);
}
double round_up(double x) {
    return std::ceil(x);
}
double round_nearest(double x) {
    return std::round(x);
}

struct Function {
    const char* name;
    int arguments; ///< -1: any number
};

/// The functions that formulas have; muParser's others are taken away, so that what is documented
/// is all there is.
constexpr Function functions[] = {{"abs", 1}, {"ceil", 1}, {"clamp", 3}, {"exp", 1},   {"floor", 1},
                                  {"ln", 1},  {"max", -1}, {"min", -1},  {"round", 1}, {"sqrt", 1}};

mu::Parser make_parser() {
    mu::Parser parser;
    parser.ClearConst();
    parser.DefineNameChars("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_.");
    parser.DefineFun("clamp", clamp_to);
    parser.DefineFun("floor", round_down);
    parser.DefineFun("ceil", round_up);
    parser.DefineFun("round", round_nearest);
    return parser;
}

/// A word of a formula and where it stands.
struct Word {
    std::string text;
    std::size_t offset;
    bool called; ///< followed by `(`
};

std::vector<Word> words_of(std::string_view text) {
    std::vector<Word> words;
    std::size_t at = 0;
    while (at < text.size()) {
        if (!is_of_name(text[at])) {
            ++at;
            continue;
        }
        const std::size_t start = at;
        const bool number = (text[at] >= '0' && text[at] <= '9') || text[at] == '.';
        while (at < text.size() && is_of_name(text[at])) ++at;
        if (number) continue;
        std::size_t next = at;
        while (next < text.size() && text[next] == ' ') ++next;
        words.push_back({std::string(text.substr(start, at - start)), start,
                         next < text.size() && text[next] == '('});
    }
    return words;
}

FormulaMistake unknown_word(const Word& word, const Scope& scope) {
    const std::vector<std::string> known = word.called ? function_names() : scope.names();
    FormulaMistake mistake{word.offset, word.text.size(), {}, {}};
    const auto near = nearest_name(word.text, known);
    mistake.message =
        fmt::format("unknown {} '{}' in a formula{}", word.called ? "function" : "name", word.text,
                    near ? fmt::format("; did you mean '{}'?", *near) : "");
    if (!near) {
        mistake.hint =
            fmt::format("{}: {}", word.called ? "functions" : "names", join(known, ", "));
    }
    return mistake;
}

/// What the parser would read without a word, and not as it is meant: a comma that is none of a
/// function's (it computes both sides and forgets the first) and a lone `=` (it assigns).
std::optional<FormulaMistake> misread(std::string_view text) {
    std::vector<bool> in_call; // by open parenthesis: whether it is a function's
    for (std::size_t at = 0; at < text.size(); ++at) {
        const char c = text[at];
        const auto next_to = [&](std::size_t place, std::string_view signs) {
            return place < text.size() && signs.find(text[place]) != std::string_view::npos;
        };
        const auto digit_at = [&](std::size_t place) { return next_to(place, "0123456789"); };
        if (c == '(') {
            std::size_t before = at;
            while (before > 0 && text[before - 1] == ' ') --before;
            in_call.push_back(before > 0 && is_of_name(text[before - 1]));
        } else if (c == ')' && !in_call.empty()) {
            in_call.pop_back();
        } else if (c == ',' && (in_call.empty() || !in_call.back())) {
            if (at > 0 && digit_at(at - 1) && digit_at(at + 1))
                return FormulaMistake{at, 1, "a comma within a number",
                                      "numbers have a decimal point: 2.5"};
            return FormulaMistake{
                at, 1, "a comma outside of a function: a formula has one result", {}};
        } else if (c == '=' && next_to(at + 1, "=")) {
            ++at;
        } else if (c == '=' && !(at > 0 && next_to(at - 1, "<>!"))) {
            return FormulaMistake{at, 1, "a lone '=': a formula can't set anything",
                                  "to compare, write =="};
        }
    }
    return std::nullopt;
}

std::string describe(const mu::ParserError& error) {
    const std::string token = printable(error.GetToken());
    switch (error.GetCode()) {
    case mu::ecEMPTY_EXPRESSION: return "the formula is empty";
    case mu::ecMISSING_PARENS: return "a closing ')' is missing";
    case mu::ecUNEXPECTED_PARENS: return fmt::format("unexpected '{}' in a formula", token);
    case mu::ecTOO_FEW_PARAMS: return fmt::format("'{}' has too few values", token);
    case mu::ecTOO_MANY_PARAMS: return fmt::format("'{}' has too many values", token);
    case mu::ecUNEXPECTED_EOF: return "the formula ends too early";
    case mu::ecUNASSIGNABLE_TOKEN: return fmt::format("'{}' has no meaning in a formula", token);
    default:
        return token.empty() ? "the formula cannot be understood"
                             : fmt::format("the formula cannot be understood at '{}'", token);
    }
}

} // namespace

std::vector<std::string> function_names() {
    std::vector<std::string> names;
    for (const Function& function : functions) names.emplace_back(function.name);
    return names;
}

std::vector<std::string> Scope::names() const {
    std::vector<std::string> all = {"level"};
    if (clock_allowed) all.insert(all.end(), {"time", "strength"});
    if (amount_allowed) all.emplace_back("amount");
    if (bought_allowed) all.emplace_back("bought");
    for (const char* side : {"self.", "other."}) {
        if (side == std::string_view("other.") && !other_allowed) break;
        for (const std::string& stat : stats) all.push_back(side + stat);
        if (!pools_allowed) continue;
        for (const std::string& pool : pools) {
            all.push_back(side + pool);
            all.push_back(side + pool + "_share");
        }
        all.push_back(side + std::string("load"));
        for (const std::string& effect : effects) {
            all.push_back(side + effect + "_active");
            all.push_back(side + effect + "_copies");
        }
    }
    return all;
}

std::optional<Variable> Scope::find(const std::string& name) const {
    const auto scalar = [&](Scalar which) {
        return Variable{name, Block::scalar, static_cast<std::uint16_t>(which)};
    };
    if (name == "level") return scalar(Scalar::level);
    if (name == "time" && clock_allowed) return scalar(Scalar::time);
    if (name == "strength" && clock_allowed) return scalar(Scalar::strength);
    if (name == "amount" && amount_allowed) return scalar(Scalar::amount);
    if (name == "bought" && bought_allowed) return scalar(Scalar::bought);

    const bool self = name.starts_with("self.");
    if (!self && !(other_allowed && name.starts_with("other."))) return std::nullopt;
    const std::string rest = name.substr(name.find('.') + 1);
    const auto within = [&](std::span<const std::string> list, const std::string& wanted,
                            Block block) -> std::optional<Variable> {
        const auto at = std::find(list.begin(), list.end(), wanted);
        if (at == list.end()) return std::nullopt;
        return Variable{name, block, static_cast<std::uint16_t>(at - list.begin())};
    };
    if (auto stat = within(stats, rest, self ? Block::self_stat : Block::other_stat)) return stat;
    if (!pools_allowed) return std::nullopt;
    if (auto pool = within(pools, rest, self ? Block::self_pool : Block::other_pool)) return pool;
    if (rest == "load") return Variable{name, self ? Block::self_load : Block::other_load, 0};
    const auto ended = [&](std::string_view ending, std::span<const std::string> list,
                           Block block) -> std::optional<Variable> {
        if (!rest.ends_with(ending)) return std::nullopt;
        return within(list, rest.substr(0, rest.size() - ending.size()), block);
    };
    if (auto share = ended("_share", pools, self ? Block::self_share : Block::other_share))
        return share;
    if (auto active = ended("_active", effects, self ? Block::self_active : Block::other_active))
        return active;
    return ended("_copies", effects, self ? Block::self_copies : Block::other_copies);
}

bool Formula::only_stats() const {
    return std::all_of(variables.begin(), variables.end(), [](const Variable& variable) {
        const bool scalar = variable.block == Block::scalar;
        return variable.block == Block::self_stat || variable.block == Block::other_stat ||
               (scalar && variable.index == static_cast<std::uint16_t>(Scalar::level));
    });
}

bool Formula::reads(Scalar which) const {
    return std::any_of(variables.begin(), variables.end(), [&](const Variable& variable) {
        return variable.block == Block::scalar &&
               variable.index == static_cast<std::uint16_t>(which);
    });
}

ParsedFormula parse_formula(std::string_view text, const Span& span, const Scope& scope) {
    ParsedFormula parsed{{std::string(text), span, {}}, {}};
    if (text.size() > longest_formula) {
        parsed.mistakes.push_back({0,
                                   1,
                                   fmt::format("a formula of {} letters; at most {} are read",
                                               text.size(), longest_formula),
                                   {}});
        return parsed;
    }
    mu::Parser parser = make_parser();
    double placeholder = 1;
    const std::vector<std::string> callable = function_names();
    for (const Word& word : words_of(text)) {
        if (word.called) {
            if (std::find(callable.begin(), callable.end(), word.text) == callable.end())
                parsed.mistakes.push_back(unknown_word(word, scope));
            continue;
        }
        const auto variable = scope.find(word.text);
        if (!variable) {
            parsed.mistakes.push_back(unknown_word(word, scope));
            continue;
        }
        const bool first =
            std::none_of(parsed.formula.variables.begin(), parsed.formula.variables.end(),
                         [&](const Variable& v) { return v.name == word.text; });
        if (!first) continue;
        parsed.formula.variables.push_back(*variable);
        parser.DefineVar(word.text, &placeholder);
    }
    if (!parsed.mistakes.empty()) return parsed;
    if (const auto mistake = misread(text)) {
        parsed.mistakes.push_back(*mistake);
        return parsed;
    }
    try {
        parser.SetExpr(std::string(text));
        static_cast<void>(parser.Eval());
        if (parser.GetNumResults() != 1)
            parsed.mistakes.push_back({0, text.size(), "a formula has one result", {}});
    } catch (const mu::ParserError& error) {
        const std::size_t offset =
            std::min<std::size_t>(error.GetPos(), text.empty() ? 0 : text.size() - 1);
        parsed.mistakes.push_back({offset, 1, describe(error), {}});
    }
    return parsed;
}

struct Evaluator::Compiled {
    Formula formula;
    mu::Parser parser;
    std::vector<double> inputs;
    double value = 0;
};

Evaluator::Evaluator(const Formula& formula) : compiled_(std::make_unique<Compiled>()) {
    compiled_->formula = formula;
    compiled_->parser = make_parser();
    compiled_->inputs.assign(formula.variables.size(), std::numeric_limits<double>::quiet_NaN());
    for (std::size_t i = 0; i < formula.variables.size(); ++i)
        compiled_->parser.DefineVar(formula.variables[i].name, &compiled_->inputs[i]);
    compiled_->parser.SetExpr(formula.text);
    if (formula.variables.size() == 1) {
        const Variable& variable = formula.variables.front();
        simple_ = simple_formula(formula.text, variable.name);
        block_ = variable.block;
        index_ = variable.index;
    }
    if (formula.variables.empty()) compiled_->value = compiled_->parser.Eval();
}

Evaluator::Evaluator(Evaluator&&) noexcept = default;
Evaluator& Evaluator::operator=(Evaluator&&) noexcept = default;
Evaluator::~Evaluator() = default;

const Formula& Evaluator::formula() const {
    return compiled_->formula;
}

double Evaluator::compute(const Environment& environment) {
    Compiled& compiled = *compiled_;
    bool changed = false;
    for (std::size_t i = 0; i < compiled.inputs.size(); ++i) {
        const Variable& variable = compiled.formula.variables[i];
        const double input = read(variable.block, variable.index, environment);
        if (input == compiled.inputs[i]) continue; // NaN, as at the start, always counts as changed
        compiled.inputs[i] = input;
        changed = true;
    }
    if (changed) compiled.value = compiled.parser.Eval();
    return compiled.value;
}

std::optional<Evaluator::OwnShare> Evaluator::zero_from_share() const {
    using Operation = SimpleFormula::Operation;
    if (!simple_ || block_ != Block::self_share || simple_->number <= 0) return std::nullopt;
    const Operation operation = simple_->operation;
    const bool below = simple_->variable_first
                           ? operation == Operation::less || operation == Operation::at_most
                           : operation == Operation::more || operation == Operation::at_least;
    if (!below) return std::nullopt;
    return OwnShare{index_, simple_->number};
}

std::string Evaluator::last_inputs() const {
    std::vector<std::string> parts;
    for (std::size_t i = 0; i < compiled_->inputs.size(); ++i)
        parts.push_back(fmt::format("{} = {}", compiled_->formula.variables[i].name,
                                    rounded(simple_ ? input_ : compiled_->inputs[i], 6)));
    return join(parts, ", ");
}

} // namespace panoplon
