// What is wrong, or surely not meant, in what the user wrote; and the sink that gathers it.
#pragma once

#include "diagnostic/source.h"

#include <string>
#include <vector>

namespace panoplon {

/// A mistake stops the work (exit 1); a doubt is legal but surely not meant.
enum class Severity { mistake, doubt };

struct Diagnostic {
    Severity severity = Severity::mistake;
    Span span;
    std::string message; ///< what, the value found, what is allowed
    std::string hint;    ///< what would be right; may be empty
    std::string kind;    ///< of a doubt: its name, as in `twin`
    std::string thing;   ///< of a doubt: what it is about, as in `item.reed_coat`
};

/// Gathers every mistake and doubt of a run. Past `most` of either it only counts.
class Sink {
  public:
    static constexpr std::size_t most = 1000;

    void mistake(const Span& span, std::string message, std::string hint = {});
    void doubt(std::string kind, std::string thing, const Span& span, std::string message,
               std::string hint = {});

    [[nodiscard]] std::size_t mistake_count() const { return mistake_count_; }
    [[nodiscard]] std::size_t doubt_count() const { return doubt_count_; }
    /// The kept ones of one severity, by file, line and column.
    [[nodiscard]] std::vector<Diagnostic> sorted(Severity severity) const;

  private:
    std::vector<Diagnostic> kept_;
    std::size_t mistake_count_ = 0;
    std::size_t doubt_count_ = 0;
};

/// `file:line:column`, `gear.xlsx: Items!C12` for a sheet, or `file`, or `where` for a span without
/// a file.
[[nodiscard]] std::string place(const Span& span, const Sources& sources,
                                const std::string& where = "armoury");
/// The message; of a mistake in a table's cell with the header above it, where it does not name
/// that.
[[nodiscard]] std::string message_of(const Diagnostic& diagnostic, const Sources& sources);
/// The message with its place, the source line, a caret and the hint, for a terminal. A long line
/// is cut to what stands around the place.
[[nodiscard]] std::string render(const Diagnostic& diagnostic, const Sources& sources);

} // namespace panoplon
