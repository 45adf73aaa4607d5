#include "formula/simple_formula.h"

#include "formula/formula.h"

#include <charconv>

namespace panoplon {

namespace {

using Operation = SimpleFormula::Operation;

/// Takes words off the front of a text.
class Front {
  public:
    explicit Front(std::string_view text) : text_(text) { skip_blanks(); }

    [[nodiscard]] bool empty() const { return text_.empty(); }

    bool take(std::string_view word) {
        if (!text_.starts_with(word)) return false;
        drop(word.size());
        return true;
    }

    bool take_name(std::string_view name) {
        const bool longer = text_.size() > name.size() && is_of_name(text_[name.size()]);
        return !longer && take(name);
    }

    std::optional<double> take_number() {
        double number = 0;
        const auto [end, error] =
            std::from_chars(text_.data(), text_.data() + text_.size(), number);
        const bool digits = !text_.empty() && text_.front() >= '0' && text_.front() <= '9';
        if (!digits || error != std::errc()) return std::nullopt;
        const auto length = static_cast<std::size_t>(end - text_.data());
        if (length < text_.size() && is_of_name(text_[length])) return std::nullopt;
        drop(length);
        return number;
    }

    Operation take_operation() {
        struct Sign {
            std::string_view text;
            Operation operation;
        };
        constexpr Sign signs[] = {{"<=", Operation::at_most}, {">=", Operation::at_least},
                                  {"<", Operation::less},     {">", Operation::more},
                                  {"+", Operation::add},      {"-", Operation::subtract},
                                  {"*", Operation::multiply}, {"/", Operation::divide}};
        for (const Sign& sign : signs)
            if (take(sign.text)) return sign.operation;
        return Operation::none;
    }

  private:
    void drop(std::size_t count) {
        text_.remove_prefix(count);
        skip_blanks();
    }
    void skip_blanks() {
        while (!text_.empty() && (text_.front() == ' ' || text_.front() == '\t'))
            text_.remove_prefix(1);
    }

    std::string_view text_;
};

} // namespace

std::optional<SimpleFormula> simple_formula(std::string_view text, std::string_view variable) {
    Front front(text);
    SimpleFormula simple;
    simple.variable_first = front.take_name(variable);
    if (simple.variable_first && front.empty()) return simple;
    std::optional<double> number;
    if (!simple.variable_first && !(number = front.take_number())) return std::nullopt;
    simple.operation = front.take_operation();
    if (simple.operation == Operation::none) return std::nullopt;
    if (simple.variable_first)
        number = front.take_number();
    else if (!front.take_name(variable))
        return std::nullopt;
    if (!number || !front.empty()) return std::nullopt;
    simple.number = *number;
    return simple;
}

} // namespace panoplon
