#include "diagnostic/diagnostic.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

void Sink::mistake(const Span& span, std::string message, std::string hint) {
    if (mistake_count_++ >= most) return;
    kept_.push_back({Severity::mistake, span, std::move(message), std::move(hint), {}, {}});
}

void Sink::doubt(std::string kind, std::string thing, const Span& span, std::string message,
                 std::string hint) {
    if (doubt_count_++ >= most) return;
    kept_.push_back({Severity::doubt, span, std::move(message), std::move(hint), std::move(kind),
                     std::move(thing)});
}

std::vector<Diagnostic> Sink::sorted(Severity severity) const {
    std::vector<Diagnostic> chosen;
    for (const Diagnostic& diagnostic : kept_)
        if (diagnostic.severity == severity) chosen.push_back(diagnostic);
    std::stable_sort(chosen.begin(), chosen.end(),
                     [](const Diagnostic& a, const Diagnostic& b) { return a.span < b.span; });
    return chosen;
}

namespace {

/// The column of a spreadsheet, from 0: A to Z, then AA.
std::string column_letters(std::size_t column) {
    constexpr std::size_t letters = 26;
    std::string name;
    for (std::size_t left = column + 1; left > 0; left = (left - 1) / letters)
        name.insert(name.begin(), static_cast<char>('A' + (left - 1) % letters));
    return name;
}

} // namespace

std::string place(const Span& span, const Sources& sources, const std::string& where) {
    if (span.file < 0) return where;
    const std::string& path = sources.file(span.file).path;
    if (span.line < 1) return path;
    if (sources.file(span.file).is_sheet())
        return fmt::format("{}!{}{}", path, column_letters(sources.cell_at(span)), span.line);
    return fmt::format("{}:{}:{}", path, span.line, span.column);
}

std::string message_of(const Diagnostic& diagnostic, const Sources& sources) {
    if (diagnostic.severity == Severity::doubt) return diagnostic.message; // of a whole row
    const std::string header = sources.header_over(diagnostic.span);
    const auto says = [&](const std::string& words) {
        return diagnostic.message.find(words) != std::string::npos;
    };
    if (header.empty() || sources.cell_at(diagnostic.span) == 0 || says("'" + header + "'") ||
        says(" " + header + " "))
        return diagnostic.message;
    return fmt::format("{} (column '{}')", diagnostic.message, header);
}

namespace {

/// The window of `line` around a column: its text, and the column inside it.
struct Excerpt {
    std::string text;
    std::size_t column;
};

/// Byte offset of the n-th character of a text (n from 0), or its end.
std::size_t offset_of(std::string_view text, std::size_t n) {
    std::size_t at = 0;
    while (at < text.size()) {
        const bool starts = (static_cast<unsigned char>(text[at]) & 0xc0) != 0x80;
        if (starts && n-- == 0) break;
        ++at;
    }
    return at;
}

Excerpt excerpt(std::string_view line, std::size_t column) {
    constexpr std::size_t width = 100;
    const auto shown_before = [&](std::string_view text, std::size_t at) {
        return characters(printable(text.substr(0, offset_of(text, at - 1)))) + 1;
    };
    if (characters(line) <= width) return {printable(line), shown_before(line, column)};
    const std::size_t first = column > width / 2 ? column - width / 2 : 0;
    const std::size_t from = offset_of(line, first);
    const std::size_t to = from + offset_of(line.substr(from), width);
    const std::string head = first > 0 ? "…" : "";
    const std::string tail = to < line.size() ? "…" : "";
    const std::string_view part = line.substr(from, to - from);
    return {head + printable(part) + tail,
            shown_before(part, column - first) + (first > 0 ? 1 : 0)};
}

} // namespace

std::string render(const Diagnostic& diagnostic, const Sources& sources) {
    const std::string word = diagnostic.severity == Severity::mistake
                                 ? "error"
                                 : fmt::format("doubt ({})", diagnostic.kind);
    std::string text = fmt::format("{}: {}: {}\n", printable(place(diagnostic.span, sources)), word,
                                   printable(message_of(diagnostic, sources)));
    const std::string_view line = sources.line(diagnostic.span);
    if (!trim(line).empty()) {
        const auto column = static_cast<std::size_t>(std::max(diagnostic.span.column, 1));
        const Excerpt shown = excerpt(line, column);
        const std::size_t room =
            characters(shown.text) + 1 - std::min(shown.column, characters(shown.text));
        const auto wanted = static_cast<std::size_t>(std::max(diagnostic.span.length, 1));
        text += fmt::format("    {}\n    {:>{}}{}\n", shown.text, '^', shown.column,
                            std::string(std::min(wanted, std::max<std::size_t>(room, 1)) - 1, '~'));
    }
    if (!diagnostic.hint.empty()) text += fmt::format("    hint: {}\n", printable(diagnostic.hint));
    return text;
}

} // namespace panoplon
