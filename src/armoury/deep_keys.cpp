#include "armoury/deep_keys.h"

#include "armoury/bounds.h"

#include <algorithm>
#include <string>

namespace panoplon {

namespace {

/// Goes over a text token by token, and counts the parts between dots.
class KeyScan {
  public:
    explicit KeyScan(std::string_view text) : text_(text) {}

    std::optional<std::size_t> run() {
        while (at_ < text_.size()) {
            const char c = text_[at_];
            if (is_bare(c)) {
                while (at_ < text_.size() && is_bare(text_[at_])) ++at_;
                part();
            } else if (c == '"' || c == '\'') {
                pass_text(c);
                part();
            } else if (c == '.') {
                after_dot_ = parts_ > 0;
                ++at_;
            } else if (c == ' ' || c == '\t') {
                ++at_;
            } else {
                if (c == '#') at_ = std::min(text_.find('\n', at_), text_.size() - 1);
                parts_ = 0;
                ++at_;
            }
            if (parts_ > deepest_key) return at_;
        }
        return std::nullopt;
    }

  private:
    static bool is_bare(char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') ||
               c == '_' || c == '-';
    }

    void part() {
        parts_ = after_dot_ ? parts_ + 1 : 1;
        after_dot_ = false;
    }

    /// To behind the end of a text in quotes, of one line or, in three, of several.
    void pass_text(char quote) {
        const std::string three(3, quote);
        const bool several = text_.substr(at_, 3) == three;
        at_ += several ? 3 : 1;
        while (at_ < text_.size()) {
            if (quote == '"' && text_[at_] == '\\') {
                at_ += 2;
            } else if (several && text_.substr(at_, 3) == three) {
                at_ += 3;
                while (at_ < text_.size() && text_[at_] == quote) ++at_; // up to two more are text
                return;
            } else if (!several && (text_[at_] == quote || text_[at_] == '\n')) {
                ++at_;
                return;
            } else {
                ++at_;
            }
        }
        at_ = text_.size();
    }

    std::string_view text_;
    std::size_t at_ = 0;
    std::size_t parts_ = 0; ///< of the key so far
    bool after_dot_ = false;
};

} // namespace

std::optional<std::size_t> find_deep_key(std::string_view toml) {
    return KeyScan(toml).run();
}

} // namespace panoplon
