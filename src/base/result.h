// What a step gives that may fail for a reason outside the program.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <variant>

namespace panoplon {

/// Why something could not be done; each cause has one exit code (docs/commands.md).
enum class Cause { refused = 1, usage = 2, file = 3 };

struct Failure {
    Cause cause = Cause::refused;
    std::string message;
    std::string hint; ///< may be empty
};

/// A value, or the failure that stands in its place.
template <class Value>
class Result {
  public:
    Result(Value value) : held_(std::move(value)) {}
    Result(Failure failure) : held_(std::move(failure)) {}

    [[nodiscard]] bool ok() const { return std::holds_alternative<Value>(held_); }
    [[nodiscard]] const Value& value() const { return std::get<Value>(held_); }
    [[nodiscard]] Value take() { return std::move(std::get<Value>(held_)); }
    [[nodiscard]] const Failure& failure() const { return std::get<Failure>(held_); }

  private:
    std::variant<Value, Failure> held_;
};

/// Unwraps results one after the other; keeps the first failure and gives a default value for each
/// that failed, so that all can be taken before anything is decided.
class FirstFailure {
  public:
    template <class Value>
    Value operator()(Result<Value> result) {
        if (result.ok()) return result.take();
        if (!failure_) failure_ = result.failure();
        return Value{};
    }
    [[nodiscard]] const std::optional<Failure>& failure() const { return failure_; }

  private:
    std::optional<Failure> failure_;
};

} // namespace panoplon
