#include "cli/editor_json.h"

#include "editor/positions.h"

#include <algorithm>
#include <cstdlib>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr std::string_view file_scheme = "file://";

/// Numbers that the protocol has for what a suggestion is.
int item_kind(Suggestion::What what) {
    switch (what) {
    case Suggestion::What::kind: return 9;     // module
    case Suggestion::What::key: return 10;     // property
    case Suggestion::What::thing: return 18;   // reference
    case Suggestion::What::word: return 12;    // value
    case Suggestion::What::variable: return 6; // variable
    }
    return 1;
}

Json position_json(const TextPosition& position) {
    return {{"line", position.line}, {"character", position.character}};
}

} // namespace

std::string uri_of(const std::filesystem::path& path) {
    std::string uri(file_scheme);
    for (const char c : path.string()) {
        const bool plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') ||
                           (c >= '0' && c <= '9') ||
                           std::string_view("-._~/").find(c) != std::string_view::npos;
        uri += plain ? std::string(1, c) : fmt::format("%{:02X}", static_cast<unsigned char>(c));
    }
    return uri;
}

std::optional<std::filesystem::path> path_of(const std::string& uri) {
    if (!uri.starts_with(file_scheme)) return std::nullopt;
    std::string path;
    for (std::size_t i = uri.find('/', file_scheme.size()); i < uri.size(); ++i) {
        if (uri[i] == '%' && i + 2 < uri.size()) {
            path += static_cast<char>(std::strtol(uri.substr(i + 1, 2).c_str(), nullptr, 16));
            i += 2;
        } else {
            path += uri[i];
        }
    }
    if (path.empty()) return std::nullopt;
    return std::filesystem::path(path).lexically_normal();
}

Json range_json(const std::string& text, const TextRange& range) {
    return {{"start", position_json(position_of(text, range.offset))},
            {"end", position_json(position_of(text, range.offset + range.length))}};
}

Json suggestion_json(const Suggestion& suggestion, const Json& range) {
    Json item = {{"label", suggestion.label},
                 {"kind", item_kind(suggestion.what)},
                 {"textEdit", {{"range", range}, {"newText", suggestion.text}}}};
    if (!suggestion.detail.empty()) item["detail"] = suggestion.detail;
    if (!suggestion.meaning.empty()) item["documentation"] = suggestion.meaning;
    return item;
}

ToldTrouble trouble_of(const Sources& sources, const Diagnostic& diagnostic) {
    const Span& span = diagnostic.span;
    const bool in_text = span.file >= 0 && !sources.file(span.file).is_sheet();
    std::string message = message_of(diagnostic, sources);
    if (!in_text) message = place(span, sources) + ": " + message;
    if (!diagnostic.hint.empty()) message += "\n" + diagnostic.hint;
    const std::string_view line = in_text ? sources.line(span) : std::string_view();
    const auto place_at = [&](std::int32_t column) {
        const TextPosition position{
            in_text && span.line > 0 ? static_cast<std::size_t>(span.line - 1) : 0,
            utf16_units(line.substr(0, byte_of(line, column)))};
        return position_json(position);
    };
    constexpr int error = 1;
    constexpr int warning = 2;
    Json json = {{"range",
                  {{"start", place_at(span.column)},
                   {"end", place_at(span.column + std::max(span.length, 1))}}},
                 {"severity", diagnostic.severity == Severity::mistake ? error : warning},
                 {"source", "panoplon"},
                 {"message", message}};
    if (!diagnostic.kind.empty()) json["code"] = diagnostic.kind;
    return {in_text ? sources.file(span.file).path : "armoury.toml", std::move(json)};
}

} // namespace panoplon
