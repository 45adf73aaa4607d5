// Every kind of mistake and every doubt has a small file in tests/data and, beside it, what `check`
// says of it: NAME.toml or NAME.csv, and NAME.says. A file that is no armoury of its own is read
// beside a sound one.
#include "support/armouries.h"

#include "demo/files.h"
#include "diagnostic/doubt_kinds.h"
#include "judge/paper/doubts.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <set>
#include <sstream>

using namespace panoplon;
using namespace panoplon::test;

namespace fs = std::filesystem;

namespace {

std::string contents(const fs::path& file) {
    std::ifstream in(file, std::ios::binary);
    REQUIRE(in);
    std::stringstream text;
    text << in.rdbuf();
    return text.str();
}

struct Case {
    std::string file; ///< its name
    std::string name; ///< without the ending
    std::string text, says;
};

std::vector<Case> cases(const std::string& folder) {
    std::vector<Case> list;
    for (const auto& entry : fs::directory_iterator(PANOPLON_SOURCE "/tests/data/" + folder)) {
        const fs::path& path = entry.path();
        if (path.extension() == ".says") continue;
        fs::path says = path;
        says.replace_extension(".says");
        list.push_back(
            {path.filename().string(), path.stem().string(), contents(path), contents(says)});
    }
    return list;
}

bool whole(const Case& one) {
    return one.text.starts_with("[armoury]");
}

/// What is said of a case beside the files that `beside` writes; with `and_more` at its end.
std::string said(const Case& one, Severity severity,
                 const std::function<void(const TempFolder&)>& beside,
                 const std::string& and_more = {}) {
    const TempFolder folder;
    if (whole(one)) {
        folder.write("armoury.toml", one.text + and_more);
    } else {
        beside(folder);
        folder.write(one.file, one.text + and_more);
    }
    Result<ReadArmoury> result = read_armoury(folder.path());
    REQUIRE(result.ok());
    ReadArmoury read = result.take();
    if (read.usable()) find_doubts(read.armoury, read.sink);
    std::string text;
    for (const Diagnostic& d : read.sink.sorted(severity)) text += render(d, read.sources);
    return text;
}

void write_duel(const TempFolder& folder) {
    folder.write("armoury.toml", duel());
}

void write_starter(const TempFolder& folder) {
    for (const EmbeddedFile& file : starter_files())
        folder.write(std::string(file.path), std::string(file.text));
}

} // namespace

TEST_CASE("each kind of mistake is told with its place, its cause and what would be right") {
    const std::vector<Case> all = cases("mistakes");
    CHECK(all.size() >= 60);
    for (const Case& one : all) {
        INFO(one.file);
        CHECK(said(one, Severity::mistake, write_duel) == one.says);
        CHECK_FALSE(one.says.empty());
    }
}

TEST_CASE("every doubt of the table has its case, and is told as it should be") {
    std::set<std::string> names;
    for (const Case& one : cases("doubts")) {
        INFO(one.file);
        CHECK(said(one, Severity::doubt, write_starter) == one.says);
        CHECK(said(one, Severity::mistake, write_starter).empty());
        CHECK(one.says.find("doubt (" + one.name + ")") != std::string::npos);
        names.insert(one.name);
    }
    const std::vector<std::string> table = doubt_names();
    CHECK(names == std::set<std::string>(table.begin(), table.end()));
}

TEST_CASE("a doubt is silenced by its name in the thing's own `allow`, and by no other") {
    const Case todo = *[] {
        static const std::vector<Case> all = cases("doubts");
        return std::find_if(all.begin(), all.end(),
                            [](const Case& one) { return one.name == "todo"; });
    }();
    CHECK(said(todo, Severity::doubt, write_starter, "allow = [\"todo\"]\nnote = \"Soon.\"\n") ==
          "");
    const std::string other =
        said(todo, Severity::doubt, write_starter, "allow = [\"twin\"]\nnote = \"Soon.\"\n");
    CHECK(other.find("doubt (todo)") != std::string::npos);
    CHECK(other.find("doubt (allow_idle)") != std::string::npos);
}
