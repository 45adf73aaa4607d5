#include "editor/marks.h"

#include "base/text.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Keys and values nested deeper than in anything that an armoury has are passed over.
constexpr int deepest_value = 64;

/// Goes through a text of TOML from front to back. `path` is what a key or value stands under, from
/// its kind on.
class TomlMarks {
  public:
    using Path = std::vector<std::string>;

    TomlMarks(std::int32_t file, std::string_view text) : file_(file), text_(text) {}

    std::vector<Mark> read() {
        Path base;
        while (pass_blank()) {
            const std::size_t before = at_;
            if (next() == '[') {
                while (next() == '[') ++at_;
                base.clear();
                key(base, true);
            } else if (Path path = base; key(path, false) && next() == '=') {
                ++at_;
                value(path, 0);
            }
            if (!begins_line() || at_ == before) pass_line();
        }
        return std::move(marks_);
    }

  private:
    struct Word {
        std::size_t offset = 0, length = 0;
        bool quoted = false;
    };

    [[nodiscard]] char next() const { return at_ < text_.size() ? text_[at_] : '\0'; }

    static bool is_bare(char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') ||
               c == '_' || c == '-';
    }

    void pass_spaces() {
        while (next() == ' ' || next() == '\t' || next() == '\r') ++at_;
    }
    void pass_line() { at_ = std::min(text_.find('\n', at_), text_.size()); }
    /// Spaces, line ends and comments. False at the end of the text.
    bool pass_blank() {
        while (at_ < text_.size()) {
            pass_spaces();
            if (next() == '#')
                pass_line();
            else if (next() == '\n')
                ++at_;
            else
                break;
        }
        return at_ < text_.size();
    }
    [[nodiscard]] bool begins_line() const {
        std::size_t before = at_;
        while (before > 0 && (text_[before - 1] == ' ' || text_[before - 1] == '\t')) --before;
        return before == 0 || text_[before - 1] == '\n';
    }

    /// To behind a text in quotes, which ends with its line, or, in three, anywhere.
    Word quoted_word() {
        const char quote = next();
        const std::string three(3, quote);
        const std::size_t quotes = text_.substr(at_, 3) == three ? 3 : 1;
        at_ += quotes;
        const std::size_t from = at_;
        while (at_ < text_.size()) {
            if (quotes == 3 ? text_.substr(at_, 3) == three : next() == quote) {
                const std::size_t length = at_ - from;
                at_ += quotes;
                return {from, length, true};
            }
            if (quotes == 1 && next() == '\n') break;
            at_ += quote == '"' && next() == '\\' && at_ + 1 < text_.size() ? 2 : 1;
        }
        return {from, at_ - from, true};
    }

    Word bare_word() {
        const std::size_t from = at_;
        while (is_bare(next())) ++at_;
        return {from, at_ - from, false};
    }

    /// A dotted key: a mark for each part. False where there is none.
    bool key(Path& path, bool in_header) {
        while (true) {
            pass_spaces();
            const bool quoted = next() == '"' || next() == '\'';
            const Word word = quoted ? quoted_word() : bare_word();
            if (word.length == 0) return false;
            path.emplace_back(text_.substr(word.offset, word.length));
            mark(Mark::Role::key, path, word, in_header);
            pass_spaces();
            if (next() != '.') return true;
            ++at_;
        }
    }

    void value(const Path& path, int depth) {
        pass_spaces();
        if (next() == '"' || next() == '\'') return mark(Mark::Role::value, path, quoted_word());
        if (next() == '[' && depth < deepest_value) return list(path, depth);
        if (next() == '{' && depth < deepest_value) return table(path, depth);
        const std::size_t from = at_;
        at_ = std::min(text_.find_first_of(",]}#\n", at_), text_.size());
        const std::string_view text = trim(text_.substr(from, at_ - from));
        if (!text.empty()) mark(Mark::Role::value, path, {from, text.size(), false});
    }

    void list(const Path& path, int depth) {
        ++at_;
        while (pass_blank()) {
            const std::size_t before = at_;
            if (next() == ']') {
                ++at_;
                return;
            }
            if (begins_line() && begins_another()) return;
            if (next() != ',') value(path, depth + 1);
            if (at_ == before) ++at_;
        }
    }

    void table(const Path& path, int depth) {
        ++at_;
        while (at_ < text_.size()) {
            pass_spaces();
            const std::size_t before = at_;
            if (next() == '\n' || (begins_line() && begins_another())) return;
            if (next() == '}') {
                ++at_;
                return;
            }
            Path inner = path;
            if (next() != ',' && key(inner, false) && next() == '=') {
                ++at_;
                value(inner, depth + 1);
            }
            if (at_ == before) ++at_;
        }
    }

    /// Whether a line that begins here can't belong to a list: `key =` or `[kind.id]`.
    [[nodiscard]] bool begins_another() const {
        std::size_t at = at_;
        const auto pass = [&](auto is) {
            while (at < text_.size() && is(text_[at])) ++at;
        };
        const bool header = text_[at] == '[';
        pass([](char c) { return c == '['; });
        if (at >= text_.size() || text_[at] < 'a' || text_[at] > 'z') return false;
        pass([](char c) { return is_bare(c) || c == '.'; });
        pass([](char c) { return c == ' ' || c == '\t'; });
        return at < text_.size() && text_[at] == (header ? ']' : '=');
    }

    void mark(Mark::Role role, const Path& path, const Word& word, bool in_header = false) {
        Mark mark;
        mark.role = role;
        mark.range = {file_, word.offset, word.length};
        mark.text = text_.substr(word.offset, word.length);
        mark.quoted = word.quoted;
        mark.in_header = in_header;
        mark.kind = path.empty() ? std::string() : path.front();
        const KindRow* const kind = find_kind(mark.kind);
        const std::size_t named = kind && kind->single ? 1 : 2; // parts that name a definition
        if (named == 2 && path.size() > 1) mark.id = path[1];
        if (role == Mark::Role::key && path.size() == 1) mark.role = Mark::Role::kind;
        if (role == Mark::Role::key && path.size() == 2 && named == 2) mark.role = Mark::Role::id;
        for (std::size_t i = named; i < path.size(); ++i)
            mark.path += (mark.path.empty() ? "" : ".") + path[i];
        marks_.push_back(std::move(mark));
    }

    std::int32_t file_;
    std::string_view text_;
    std::size_t at_ = 0;
    std::vector<Mark> marks_;
};

} // namespace

std::vector<Mark> marks_of_toml(std::int32_t file, std::string_view text) {
    return TomlMarks(file, text).read();
}

} // namespace panoplon
