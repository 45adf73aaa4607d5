#include "diagnostic/diagnostic.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;

namespace {

Diagnostic at(const Span& span, const std::string& message, const std::string& hint = {}) {
    return {Severity::mistake, span, message, hint, {}, {}};
}

} // namespace

TEST_CASE("places count lines and columns from 1, columns in characters") {
    Sources sources;
    const std::int32_t file = sources.add("a.toml", "one\ntwö = 3\r\n\nlast");
    CHECK(sources.at(file, 0) == Span{file, 1, 1, 1});
    CHECK(sources.at(file, 4) == Span{file, 2, 1, 1});
    CHECK(sources.at(file, 9) == Span{file, 2, 5, 1}); // after the two bytes of ö
    CHECK(sources.line({file, 2, 1, 1}) == "twö = 3");
    CHECK(sources.line({file, 3, 1, 1}).empty());
    CHECK(sources.line({file, 4, 1, 1}) == "last");
    CHECK(sources.line({file, 99, 1, 1}).empty());
    CHECK(sources.line({-1, 1, 1, 1}).empty());
}

TEST_CASE("the sink keeps a thousand of each and counts all") {
    Sink sink;
    for (int i = 0; i < 1500; ++i) sink.mistake({0, i + 1, 1, 1}, "m");
    sink.doubt("kind", "thing", {0, 1, 1, 1}, "d");
    CHECK(sink.mistake_count() == 1500);
    CHECK(sink.sorted(Severity::mistake).size() == Sink::most);
    CHECK(sink.doubt_count() == 1);
    CHECK(sink.sorted(Severity::doubt).front().thing == "thing");
}

TEST_CASE("what the sink gives is sorted by place, and stays in its order within one") {
    Sink sink;
    sink.mistake({1, 1, 1, 1}, "e");
    sink.mistake({0, 2, 5, 1}, "c");
    sink.mistake({0, 2, 5, 1}, "d");
    sink.mistake({0, 2, 1, 1}, "b");
    sink.mistake({-1, 0, 0, 0}, "a");
    std::string order;
    for (const Diagnostic& d : sink.sorted(Severity::mistake)) order += d.message;
    CHECK(order == "abcde");
}

TEST_CASE("a message shows what it can: no line without a place, no caret past the line") {
    Sources sources;
    const std::int32_t file = sources.add("a.toml", "short\n\n");
    CHECK(render(at({}, "m", "h"), sources) == "armoury: error: m\n    hint: h\n");
    CHECK(render(at({file, 0, 0, 0}, "m"), sources) == "a.toml: error: m\n");
    CHECK(render(at({file, 2, 1, 4}, "m"), sources) == "a.toml:2:1: error: m\n");
    CHECK(render(at({file, 1, 3, 99}, "m"), sources) ==
          "a.toml:1:3: error: m\n    short\n      ^~~\n");
    CHECK(render(at({file, 1, 6, 1}, "m"), sources) ==
          "a.toml:1:6: error: m\n    short\n         ^\n");
}

TEST_CASE("wherever a place lies, its caret stands under it") {
    rc::prop("in lines of any length", [] {
        const auto length = *rc::gen::inRange<std::size_t>(1, 400);
        const auto column = *rc::gen::inRange<std::size_t>(1, length + 1);
        std::string line(length, '.');
        line[column - 1] = 'X';
        Sources sources;
        const std::int32_t file = sources.add("f", line);
        const std::string text =
            render(at({file, 1, static_cast<std::int32_t>(column), 1}, "m"), sources);
        const std::size_t first = text.find('\n') + 1;
        const std::string shown = text.substr(first, text.find('\n', first) - first);
        const std::string carets = text.substr(text.find('\n', first) + 1);
        std::size_t bytes_cut = 0; // an ellipsis is three bytes and one character
        if (shown.find("…") < shown.find('X')) bytes_cut = 2;
        RC_ASSERT(shown.find('X') - bytes_cut == carets.find('^'));
        RC_ASSERT(shown.size() < 120);
    });
}
