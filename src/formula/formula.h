// Formulas over named variables, as they stand in an armoury's files.
//
// A Formula is what was read and checked: plain data, shared by all threads. An Evaluator is one
// compiled for one thread: it remembers its last inputs and does not compute the same thing twice.
#pragma once

#include "base/result.h"
#include "diagnostic/source.h"
#include "formula/simple_formula.h"

#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

/// Whether it can be part of a name in a formula: a letter, a digit, `_` or `.`.
[[nodiscard]] bool is_of_name(char c);

/// Where a variable's value lies in an Environment.
enum class Block : std::uint8_t {
    self_stat,
    other_stat,
    self_pool,
    other_pool,
    self_share, ///< a pool over its ceiling; 0 when the ceiling is 0
    other_share,
    self_copies, ///< of an effect, how many copies one has
    other_copies,
    self_active, ///< of an effect, whether one has it: 1 or 0
    other_active,
    self_load, ///< weight carried over capacity (M50)
    other_load,
    scalar, ///< level, time, …: index is a Scalar
};

enum class Scalar : std::uint8_t { level, time, strength, amount, bought };
inline constexpr std::size_t scalar_count = 5;

struct Variable {
    std::string name; ///< as written, `self.haste`
    Block block = Block::scalar;
    std::uint16_t index = 0;
};

/// One side of a formula: arrays by stat, by pool and by effect. Null where there is none; reads as
/// 0.
struct ActorView {
    const double* stats = nullptr;
    const double* pools = nullptr;
    const double* ceilings = nullptr;
    const double* copies = nullptr; ///< of each effect
    double load = 0;                ///< share; 0 for whoever carries nothing
};

struct Environment {
    ActorView self;
    ActorView other;
    double scalars[scalar_count] = {};

    double& operator[](Scalar which) { return scalars[static_cast<std::size_t>(which)]; }
};

/// To nine decimals, as formulas see pools and their shares: what sums have brought a hair below
/// 0.4 is 0.4 to `health_share < 0.4` (M12a). Amounts of a million and more are left as they are.
[[nodiscard]] inline double to_nine_decimals(double amount) {
    constexpr double scale = 1e9, largest = 1e6;
    constexpr double rounds_to_whole = 6755399441055744.0; // 3 × 2^51: added, no fraction is left
    if (!(amount < largest)) return amount;
    return ((amount * scale + rounds_to_whole) - rounds_to_whole) / scale;
}

/// A variable's value; 0 where there is no such side.
[[nodiscard]] inline double read(Block block, std::size_t index, const Environment& environment) {
    const auto pick = [&](const double* values) { return values ? values[index] : 0.0; };
    const auto share = [&](const ActorView& view) {
        const double ceiling = pick(view.ceilings);
        return ceiling > 0 ? to_nine_decimals(pick(view.pools) / ceiling) : 0.0;
    };
    switch (block) {
    case Block::self_stat: return pick(environment.self.stats);
    case Block::other_stat: return pick(environment.other.stats);
    case Block::self_pool: return to_nine_decimals(pick(environment.self.pools));
    case Block::other_pool: return to_nine_decimals(pick(environment.other.pools));
    case Block::self_share: return share(environment.self);
    case Block::other_share: return share(environment.other);
    case Block::self_copies: return pick(environment.self.copies);
    case Block::other_copies: return pick(environment.other.copies);
    case Block::self_active: return pick(environment.self.copies) > 0 ? 1 : 0;
    case Block::other_active: return pick(environment.other.copies) > 0 ? 1 : 0;
    case Block::self_load: return to_nine_decimals(environment.self.load);
    case Block::other_load: return to_nine_decimals(environment.other.load);
    case Block::scalar: return environment.scalars[index];
    }
    return 0;
}

/// The functions that formulas have.
[[nodiscard]] std::vector<std::string> function_names();

/// The names a formula may use where it stands.
struct Scope {
    std::span<const std::string> stats;
    std::span<const std::string> pools;
    std::span<const std::string> effects;
    bool pools_allowed = true; ///< and effects, and the load
    bool other_allowed = true;
    bool clock_allowed = true; ///< time and strength
    bool amount_allowed = false;
    bool bought_allowed = false; ///< levels of an upgrade that are bought already

    [[nodiscard]] std::vector<std::string> names() const;
    [[nodiscard]] std::optional<Variable> find(const std::string& name) const;
};

struct Formula {
    std::string text;
    Span span;
    std::vector<Variable> variables;

    [[nodiscard]] bool given() const { return !text.empty(); }
    /// True when only stats and the level decide: the value stands as long as the stats do.
    [[nodiscard]] bool only_stats() const;
    [[nodiscard]] bool reads(Scalar which) const;
};

/// What is wrong with a formula's text; `offset` counts bytes from its start.
struct FormulaMistake {
    std::size_t offset = 0;
    std::size_t length = 1;
    std::string message;
    std::string hint;
};

/// Longest formula that is read, in bytes.
inline constexpr std::size_t longest_formula = 2000;

struct ParsedFormula {
    Formula formula;
    std::vector<FormulaMistake> mistakes; ///< every unknown name, or the one error of the grammar
};

/// Checks a formula's text and resolves its names. Functions: abs, ceil, clamp(x, low, high), exp,
/// floor, ln, max, min, round, sqrt. Operators: + - * / ^, comparisons, && ||, `a ? b : c`.
[[nodiscard]] ParsedFormula parse_formula(std::string_view text, const Span& span,
                                          const Scope& scope);

/// A formula compiled. Not for use by two threads at once.
class Evaluator {
  public:
    /// `formula` has been parsed without mistakes; it is copied.
    explicit Evaluator(const Formula& formula);
    Evaluator(Evaluator&&) noexcept;
    Evaluator& operator=(Evaluator&&) noexcept;
    ~Evaluator();

    /// The value, which may be NaN or infinite: the caller decides what that means (M66).
    double operator()(const Environment& environment) {
        if (!simple_) return compute(environment);
        input_ = read(block_, index_, environment);
        return (*simple_)(input_);
    }
    [[nodiscard]] const Formula& formula() const;
    /// "self.haste = 3, other.guard = 10": the inputs of the last evaluation.
    [[nodiscard]] std::string last_inputs() const;

    /// Where the formula is `self.pool_share < number` or alike: the share of the actor's own pool
    /// from which on it is 0 (`<=`: above which). None where it is not.
    struct OwnShare {
        std::size_t pool;
        double share; ///< > 0
    };
    [[nodiscard]] std::optional<OwnShare> zero_from_share() const;

  private:
    double compute(const Environment& environment);

    struct Compiled;
    std::unique_ptr<Compiled> compiled_;
    std::optional<SimpleFormula> simple_; ///< where it is one: of the variable of this place
    Block block_ = Block::scalar;
    std::uint16_t index_ = 0;
    double input_ = 0;
};

} // namespace panoplon
