// Changes of numbers as patches: applied, the files read as the what-if did.
#include "support/armouries.h"

#include "armoury/content.h"
#include "armoury/patch.h"
#include "base/text.h"

#include <catch2/catch.hpp>
#include <map>
#include <rapidcheck.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

using Files = std::map<std::string, std::string>;

std::vector<std::string> lines_of(const std::string& text) {
    std::vector<std::string> lines = split(text, '\n');
    if (!lines.empty() && lines.back().empty()) lines.pop_back();
    return lines;
}

/// Applies a patch as strictly as can be: every line that stays or goes must be there.
Files applied(const Files& files, const std::string& patch) {
    Files result = files;
    std::string path;
    std::vector<std::string> old, fresh;
    std::size_t next = 0; // line of the old file
    const auto finish = [&] {
        if (path.empty()) return;
        for (; next < old.size(); ++next) fresh.push_back(old[next]);
        result[path] = join(fresh, "\n") + "\n";
    };
    for (const std::string& line : lines_of(patch)) {
        if (line.starts_with("--- ")) {
            finish();
            path = line.substr(4);
            REQUIRE(files.contains(path));
            old = lines_of(files.at(path));
            fresh.clear();
            next = 0;
        } else if (line.starts_with("@@ -")) {
            const std::size_t first = std::stoul(line.substr(4)) - 1;
            REQUIRE(first >= next);
            for (; next < first; ++next) fresh.push_back(old[next]);
            const std::size_t plus = line.find('+');
            REQUIRE(std::stoul(line.substr(plus + 1)) == fresh.size() + 1);
        } else if (line.starts_with("+") && !line.starts_with("+++")) {
            fresh.push_back(line.substr(1));
        } else if (line.starts_with(" ") || line.starts_with("-")) {
            REQUIRE(next < old.size());
            REQUIRE(old[next] == line.substr(1));
            if (line.front() == ' ') fresh.push_back(old[next]);
            ++next;
        }
    }
    finish();
    return result;
}

ReadArmoury read_files(const Files& files, const std::vector<std::string>& changes = {}) {
    Sources sources;
    for (const auto& [path, text] : files) sources.add(path, text);
    return read_sources(std::move(sources), {}, changes);
}

Files small_armoury() {
    return {{"armoury.toml", duel()},
            {"gear.csv", "item,slot,weight,attack,percent.keen\n"
                         "axe,hand,2,5,\nsaw,hand,1.5,,4\n\"rasp\",hand,\"1\",3,2\n"
                         "file,hand,,,\n"},
            {"more.toml", "[pattern.tool]\nslot = \"hand\"\nadd = { attack = 2 }\n\n"
                          "[item.pick]\nlike = \"tool\"\nweight = 3 # as ever\n\n"
                          "[item.adze]\nslot = \"hand\"\nadd = { keen = 1, might = -2 }\n\n"
                          "[item.froe]\nslot = \"hand\"\n[item.froe.add]\nkeen = 1\n\n"
                          "[effect.hot]\npercent = { attack = 10 }\n\n"
                          "[item.oil]\nuse = { effect = \"hot\", duration = 5 }"}};
}

void check_patch(const std::vector<NumberChange>& changes) {
    const Files files = small_armoury();
    const ReadArmoury before = read_files(files);
    REQUIRE(mistakes(before).empty());
    const Result<std::string> patch = patch_text(before, changes);
    REQUIRE(patch.ok());
    std::vector<std::string> what_ifs;
    for (const NumberChange& change : changes)
        what_ifs.push_back(change.kind + "." + change.id + "." + change.key + "=" +
                           shortest(change.value));
    const ReadArmoury wanted = read_files(files, what_ifs);
    const ReadArmoury got = read_files(applied(files, patch.value()));
    CAPTURE(patch.value());
    REQUIRE(mistakes(wanted).empty());
    REQUIRE(mistakes(got).empty());
    CHECK(differences(wanted, got).empty());
    CHECK_FALSE(differences(before, got).empty());
}

} // namespace

TEST_CASE("patches change numbers where they stand") {
    check_patch({{"item", "axe", "add.attack", 7}});
    check_patch({{"item", "rasp", "weight", 2.5}});
    check_patch({{"item", "pick", "weight", 4}});
    check_patch({{"item", "adze", "add.might", 3}});
    check_patch({{"item", "froe", "add.keen", 12}});
    check_patch({{"effect", "hot", "percent.attack", 25}});
}

TEST_CASE("patches add what is not there yet: to a row, a table, or as a line") {
    check_patch({{"item", "saw", "add.attack", 6}});
    check_patch({{"item", "file", "percent.keen", 6}});
    check_patch({{"item", "pick", "add.attack", 9}}); // its pattern's so far
    check_patch({{"item", "adze", "add.attack", 9}});
    check_patch({{"item", "froe", "add.attack", 9}});
    check_patch({{"item", "oil", "weight", 0.5}}); // past the end of a file without an end of line
    const ReadArmoury read = read_files(small_armoury());
    const Result<std::string> refused = patch_text(read, {{"item", "axe", "times.attack", 2}});
    REQUIRE_FALSE(refused.ok());
    CHECK(has(refused.failure().message, "gear.csv has no column for times.attack"));
    CHECK_FALSE(patch_text(read, {{"item", "nothing", "weight", 2}}).ok());
}

TEST_CASE("patches of several numbers, of one line and of several files") {
    check_patch({{"item", "axe", "add.attack", 8},
                 {"item", "axe", "weight", 3},
                 {"item", "file", "weight", 1},
                 {"item", "adze", "add.keen", 5},
                 {"item", "adze", "add.might", 5}});
}

TEST_CASE("property: any set of changes is what its patch makes") {
    const std::vector<NumberChange> all = {
        {"item", "axe", "add.attack", 0},      {"item", "axe", "weight", 0},
        {"item", "saw", "add.attack", 0},      {"item", "saw", "percent.keen", 0},
        {"item", "rasp", "weight", 0},         {"item", "file", "percent.keen", 0},
        {"item", "pick", "weight", 0},         {"item", "pick", "add.attack", 0},
        {"item", "adze", "add.keen", 0},       {"item", "adze", "add.attack", 0},
        {"item", "froe", "add.keen", 0},       {"item", "froe", "add.might", 0},
        {"effect", "hot", "percent.attack", 0}};
    rc::check([&] {
        std::vector<NumberChange> some;
        for (NumberChange change : all)
            if (*rc::gen::arbitrary<bool>()) {
                change.value = *rc::gen::inRange(100, 200); // unlike what stands there
                some.push_back(change);
            }
        RC_PRE(!some.empty());
        check_patch(some);
    });
}
