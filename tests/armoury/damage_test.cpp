#include "support/armouries.h"

#include "armoury/keys.h"
#include "armoury/live_keys.h"
#include "armoury/write.h"
#include "chance/draws.h"
#include "demo/files.h"
#include "judge/paper/doubts.h"
#include "outfit/refusals.h"
#include "show/armoury/show_export.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// A number from 0 to below `end`, the n-th of a seed.
std::size_t draw(std::uint64_t seed, std::uint64_t n, std::size_t end) {
    return static_cast<std::size_t>(blow_draws({seed, 0}, 0, n).hit * static_cast<double>(end));
}

const char* const keys[] = {"add",   "slot",        "tier",          "level",        "needs",
                            "takes", "sockets",     "like",          "set",          "use",
                            "foes",  "contains",    "base",          "actions",      "x",
                            "a.b",   "trigger.on",  "trigger.1.on",  "needs.level",  "step.1.count",
                            "",      "use.restore", "use.restore.x", "contains.lamp"};
const char* const values[] = {"0",
                              "-1",
                              "1e15",
                              "0.5",
                              "\"\"",
                              "[]",
                              "{ }",
                              "\"self.attack\"",
                              "true",
                              "[1, 2]",
                              "{ attack = 3 }",
                              "\"main_hand\"",
                              "\"always\""};

/// The n-th place of a letter in a text, counted around its end; npos where it has none.
std::size_t place_of(const std::string& text, char letter, std::size_t n) {
    std::vector<std::size_t> places;
    for (std::size_t i = 0; i < text.size(); ++i)
        if (text[i] == letter) places.push_back(i);
    return places.empty() ? std::string::npos : places[n % places.size()];
}

/// A key of a TOML file, or a header of a table, becomes another.
std::string with_other_key(std::string text, std::uint64_t seed) {
    const std::size_t equals = place_of(text, '=', draw(seed, 3, 100000));
    const std::string key = keys[draw(seed, 4, std::size(keys))];
    if (equals == std::string::npos) {
        const std::size_t comma = place_of(text.substr(0, text.find('\n')), ',', draw(seed, 3, 99));
        if (comma == std::string::npos) return text;
        return text.substr(0, comma + 1) + key + text.substr(text.find_first_of(",\n", comma + 1));
    }
    const std::size_t begin = text.find_last_of("\n{,", equals);
    return text.substr(0, begin + 1) + " " + key + " " + text.substr(equals);
}

/// What stands after a `=`, or in a cell, becomes something else.
std::string with_other_value(std::string text, std::uint64_t seed) {
    const bool toml = text.find('=') != std::string::npos;
    const std::size_t at = place_of(text, toml ? '=' : ',', draw(seed, 3, 100000));
    if (at == std::string::npos) return text;
    const std::size_t end = text.find_first_of(toml ? ",}\n" : ",\n", at + 1);
    return text.substr(0, at + 1) + values[draw(seed, 4, std::size(values))] +
           (end == std::string::npos ? "" : text.substr(end));
}

/// One thing done to a text: a byte changed, put in or taken out, a line lost or doubled, a word
/// put where another was, a key or a value changed.
std::string damaged(std::string text, std::uint64_t seed) {
    if (text.empty()) return text;
    const std::size_t at = draw(seed, 1, text.size());
    const std::size_t begin =
        text.rfind('\n', at) == std::string::npos ? 0 : text.rfind('\n', at) + 1;
    const std::size_t end = std::min(text.find('\n', at), text.size());
    const char* words[] = {
        "nan", "-1", "1e400", "[", "\"", "= =", "item", "self.attack", "{ }", ",,,", "0", "'''"};
    switch (draw(seed, 0, 11)) {
    case 0: text[at] = static_cast<char>(draw(seed, 2, 256)); break;
    case 1: text.insert(at, 1, static_cast<char>(draw(seed, 2, 256))); break;
    case 2: text.erase(at, 1); break;
    case 3: text.erase(begin, end - begin); break;
    case 4: text.insert(begin, text.substr(begin, end - begin) + "\n"); break;
    case 5:
        text.replace(at, std::min<std::size_t>(5, text.size() - at),
                     words[draw(seed, 2, std::size(words))]);
        break;
    case 6: text.resize(at); break;
    case 7:
    case 8: return with_other_key(std::move(text), seed);
    default: return with_other_value(std::move(text), seed);
    }
    return text;
}

} // namespace

TEST_CASE("whatever happens to a file, each mistake has a place, and what is left can be used") {
    const auto files = demo_files();
    int usable = 0;
    constexpr int tries = 600;
    for (std::uint64_t seed = 0; seed < tries; ++seed) {
        const TempFolder folder;
        const std::size_t victim = draw(seed, 9, files.size());
        for (std::size_t i = 0; i < files.size(); ++i)
            folder.write(std::string(files[i].path), i == victim
                                                         ? damaged(std::string(files[i].text), seed)
                                                         : std::string(files[i].text));
        Result<ReadArmoury> result = read_armoury(folder.path());
        INFO("seed " << seed << ", " << files[victim].path);
        REQUIRE(result.ok());
        ReadArmoury read = result.take();
        for (const Diagnostic& d : read.sink.sorted(Severity::mistake)) {
            CHECK(d.span.file >= 0);
            CHECK_FALSE(d.message.empty());
            CHECK_FALSE(render(d, read.sources).empty());
        }
        if (!read.usable()) continue;
        ++usable;
        find_doubts(read.armoury, read.sink);
        for (const Diagnostic& d : read.sink.sorted(Severity::doubt)) CHECK(d.span.file >= 0);
        CHECK_FALSE(resolved_json(read).dump().empty());
        CHECK_FALSE(csv_files(read.definitions).empty());
        if (read.armoury.loadouts.empty() || read.armoury.encounters.empty()) continue;
        Deriver deriver(read.armoury);
        const Outfit outfit = outfit_of(read.armoury, read.armoury.loadouts[0], 8);
        if (!refusals(deriver, outfit).empty()) continue;
        Engine engine(read.armoury);
        const FightSetup setup = set_up_fight(read.armoury, outfit, EncounterId(0));
        engine.prepare(setup);
        const FightResult fight = engine.run(1, Luck{seed, 0});
        CHECK((fight.error.has_value() || fight.time <= to_units(read.armoury.combat.time_limit)));
    }
    CHECK(usable > tries / 20); // a comment, a name, a number: much damage is none
    CHECK(usable < tries * 19 / 20);
}

TEST_CASE("whatever a what-if says, each mistake has a place, and nothing breaks", "[what-if]") {
    const auto files = demo_files();
    Sources sources;
    for (const EmbeddedFile& file : files)
        sources.add(std::string(file.path), std::string(file.text));
    const ReadArmoury demo = read_sources(sources, Sink());
    constexpr int tries = 300;
    int usable = 0;
    for (std::uint64_t seed = 0; seed < tries; ++seed) {
        const RawDefinition& one = demo.definitions[draw(seed, 1, demo.definitions.size())];
        const std::vector<KeyState> paths = key_states(demo.armoury, one);
        std::string path = paths.empty() ? "name" : paths[draw(seed, 2, paths.size())].path;
        if (draw(seed, 3, 3) == 0) path += std::string(".") + keys[draw(seed, 4, std::size(keys))];
        if (draw(seed, 5, 3) == 0) path = damaged(path, seed);
        const std::string change = one.kind + (one.id.empty() ? "" : "." + one.id) + "." + path +
                                   "=" + values[draw(seed, 6, std::size(values))];
        INFO(change);
        ReadArmoury changed = read_sources(sources, Sink(), {change});
        for (const Diagnostic& d : changed.sink.sorted(Severity::mistake)) {
            CHECK(d.span.file >= 0);
            CHECK_FALSE(render(d, changed.sources).empty());
        }
        if (!changed.usable()) continue;
        ++usable;
        find_doubts(changed.armoury, changed.sink);
        CHECK_FALSE(toml_text(changed.definitions).empty());
    }
    CHECK(usable > tries / 20);
    CHECK(usable < tries);
}

TEST_CASE("keys are found by their path, with what follows a table of names") {
    CHECK(find_key("item", "use.cooldown") != nullptr);
    CHECK(find_key("item", "cooldown") == nullptr);
    CHECK(find_key("carry", "name") == nullptr);
    CHECK(find_key("slot", "name") != nullptr);
    CHECK(locate_key("item", "add.guard")->suffix == "guard");
    CHECK(locate_key("item", "use.restore.health")->row->path == "use.restore");
    CHECK_FALSE(locate_key("item", "level.x"));
    CHECK_FALSE(locate_key("item", "nothing"));
    CHECK(directly_under("use.cooldown", "use"));
    CHECK_FALSE(directly_under("use.cooldown", ""));
    CHECK_FALSE(directly_under("user.cooldown", "use"));
    CHECK(last_part("carry.band.from") == "from");
    CHECK(keys_under("loadout", "use") == std::vector<std::string>{"item", "when"});
    for (const KeyRow& row : key_rows()) CHECK(std::string(type_words(row.type)) != "a value");
}
