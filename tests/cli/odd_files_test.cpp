// Files that are no files, links, folders that can't be read, disks that are full, and stops in the
// midst of drawing.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <chrono>
#include <filesystem>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

using namespace panoplon;
using namespace panoplon::test;
namespace fs = std::filesystem;

namespace {

/// The small armoury that `new` writes, as `a/`.
struct SmallFolder : TempFolder {
    SmallFolder() { REQUIRE(run_program(*this, "new a").exit == 0); }
};

/// Pictures below a folder that are not whole.
std::vector<std::string> cut_pictures(const TempFolder& folder, const std::string& below) {
    std::vector<std::string> cut;
    if (!fs::exists(folder / below)) return cut;
    for (const auto& file : fs::recursive_directory_iterator(folder / below)) {
        const fs::path path = file.path();
        const std::string text = folder.read(path.lexically_relative(folder.path()).string());
        const bool whole = path.extension() == ".png"   ? text.ends_with("IEND\xae\x42\x60\x82")
                           : path.extension() == ".svg" ? has(text, "</svg>")
                                                        : true;
        if (!whole) cut.push_back(path.string());
    }
    return cut;
}

std::vector<std::string> unfinished(const TempFolder& folder, const std::string& below) {
    std::vector<std::string> names;
    if (!fs::exists(folder / below)) return names;
    for (const auto& file : fs::recursive_directory_iterator(folder / below)) {
        const std::string name = file.path().filename().string();
        if (name.starts_with(".") || has(name, ".part-")) names.push_back(name);
    }
    return names;
}

} // namespace

TEST_CASE("program: a full disk leaves no cut picture under its name, and is told") {
    const SmallFolder folder;
    const std::string fight = "fight a first post --level 3 --trials 20 -o out -q";
    int refused = 0;
    for (int blocks = 4; blocks <= 96; blocks += 4) {
        INFO(blocks);
        fs::remove_all(folder / "out");
        const Run run = run_program(folder, fight, fmt::format("ulimit -f {};", blocks));
        CHECK((run.exit == 0 || run.exit == 3));
        CHECK((run.exit == 0 || has(run.err, "can't") || has(run.err, "is the disk full?")));
        CHECK(cut_pictures(folder, "out").empty());
        CHECK(unfinished(folder, "out").empty());
        refused += run.exit == 3 ? 1 : 0;
    }
    CHECK(refused >= 5);
    CHECK(run_program(folder, fight).exit == 0);
}

TEST_CASE("program: what killed runs left is taken away by the next, and nothing else is") {
    const SmallFolder folder;
    for (const char* name :
         {"out/.fight-999999999/fight.gp", "out/fight.json.part-999999999", "out/.git-999999999/x",
          "out/notes.part-999999999", "out/.fight-here/x"})
        folder.write(name, "");
    REQUIRE(run_program(folder, "fight a first post --level 3 --trials 20 -o out -q").exit == 0);
    CHECK_FALSE(folder.has("out/.fight-999999999"));
    CHECK_FALSE(folder.has("out/fight.json.part-999999999"));
    CHECK(folder.has("out/.git-999999999/x"));
    CHECK(folder.has("out/notes.part-999999999"));
    CHECK(folder.has("out/.fight-here/x"));
}

TEST_CASE("program: a stop while figures are drawn finishes the one that is begun and says so") {
    const SmallFolder folder;
    const std::string compare = "audit a --trials 0 -o out -q";
    REQUIRE(run_program(folder, compare).exit == 0); // what it finds is known from here on
    const auto start = std::chrono::steady_clock::now();
    REQUIRE(run_program(folder, compare).exit == 0);
    const std::chrono::duration<double> whole = std::chrono::steady_clock::now() - start;
    int in_figures = 0;
    for (const char* signal : {"INT", "TERM", "HUP"})
        for (int i = 1; i <= 12; ++i) {
            fs::remove_all(folder / "out");
            const std::string after = fmt::format("{:.3f}", whole.count() * i / 12);
            INFO(signal << " after " << after);
            const Run run = run_program(
                folder, compare,
                fmt::format("timeout --preserve-status --foreground -s {} {}", signal, after));
            if (has(run.err, "stopped; not drawn: ")) {
                CHECK(run.exit == 130);
                ++in_figures;
            }
            CHECK(cut_pictures(folder, "out").empty());
            if (run.exit == 130) CHECK(unfinished(folder, "out").empty());
        }
    CHECK(in_figures >= 1);
}

TEST_CASE("program: links are read as what they are called") {
    const SmallFolder folder;
    const std::string plain = run_program(folder, "list a item").out;
    fs::create_directories(folder / "kept");
    fs::rename(folder / "a/armoury.toml", folder / "kept/root.txt");
    fs::rename(folder / "a/gear.csv", folder / "kept/gear.old");
    fs::create_symlink("../kept/root.txt", folder / "a/armoury.toml");
    fs::create_symlink("../kept/gear.old", folder / "a/gear.csv");
    CHECK(run_program(folder, "list a item").out == plain);
    folder.write("shared/more.toml", "[item.shared]\nslot = \"hand\"\nadd = { attack = 1 }\n");
    fs::create_directory_symlink("../shared", folder / "a/linked");
    fs::create_directory_symlink("../shared", folder / "a/linked_again");
    fs::create_directory_symlink(".", folder / "a/itself");
    const Run linked = run_program(folder, "list a item");
    CHECK(linked.exit == 0);
    CHECK(has(linked.out, "shared "));
    folder.write("shared/more.toml", "[item.shared]\nslto = \"hand\"\n");
    CHECK(has(run_program(folder, "check a").err, "linked/more.toml:2:1"));
    fs::remove_all(folder / "a/linked");
    fs::remove_all(folder / "a/linked_again");
    fs::create_symlink("nowhere", folder / "a/gone.toml");
    CHECK(has(run_program(folder, "check a").err, "gone.toml: error: not a file that can be read"));
}

TEST_CASE("program: pipes and devices are never waited for, nor replaced") {
    const SmallFolder folder;
    const auto pipe = [&](const std::string& name) {
        fs::create_directories(fs::path(folder / name).parent_path());
        REQUIRE(mkfifo((folder / name).c_str(), 0600) == 0);
    };
    pipe("a/pipe.toml");
    CHECK(has(run_program(folder, "check a").err, "pipe.toml: error: not a file that can be read"));
    fs::remove(folder / "a/pipe.toml");
    pipe("out/results.sqlite");
    const Run kept = run_program(folder, "check a -o out -q");
    CHECK(kept.exit == 3);
    CHECK(has(kept.err, "can't add to 'out/results.sqlite': what is there is no file"));
    CHECK(run_program(folder, "history a --results out").exit == 3);
    pipe("pipe");
    for (const char* command :
         {"audit a --trials 0 -q --detail pipe", "export a --sqlite pipe",
          "fight a first post --level 3 --trials 5 -q --timeline pipe", "new pipe --table item"}) {
        INFO(command);
        const Run run = run_program(folder, command);
        CHECK((run.exit == 3 || run.exit == 1 || run.exit == 2));
        CHECK(fs::is_fifo(folder / "pipe"));
    }
    fs::remove_all(folder / "cache");
    pipe("cache/panoplon/known.sqlite");
    const Run best = run_program(folder, "best a --level 1");
    CHECK(best.exit == 0);
    CHECK(has(best.err, "what is found can't be kept in"));
}

TEST_CASE("program: what can't be read is told, with exit 3") {
    const SmallFolder folder;
    folder.write("a/closed/more.toml", "");
    fs::permissions(folder.path(), fs::perms::all);
    // Root reads everything: the program is run as nobody then.
    const std::string nobody =
        geteuid() == 0 ? "setpriv --reuid 65534 --regid 65534 --clear-groups" : "";
    fs::permissions(folder / "a/closed", fs::perms::none);
    const Run in_folder = run_program(folder, "check a", nobody);
    CHECK(in_folder.exit == 3);
    CHECK(has(in_folder.err, "can't read the folder 'a/closed'"));
    fs::permissions(folder / "a/closed", fs::perms::all);
    fs::permissions(folder / "a/closed/more.toml", fs::perms::none);
    const Run in_file = run_program(folder, "check a", nobody);
    CHECK(in_file.exit == 3);
    CHECK(has(in_file.err, "can't read 'a/closed/more.toml'"));
}

TEST_CASE("program: an empty name is a mistake in usage, for every option and operand") {
    const SmallFolder folder;
    for (const char* command :
         {"card a ash_club -o ''", "report a -o ''", "audit a --detail ''", "export a --xlsx ''",
          "export a --sqlite ''", "check ''", "list a ''", "demo ''", "new ''", "check a --set ''",
          "history a --results ''"}) {
        INFO(command);
        const Run run = run_program(folder, command);
        CHECK(run.exit == 2);
        CHECK(has(run.err, "empty"));
    }
}

TEST_CASE("program: the same command writes the same bytes") {
    const SmallFolder folder;
    for (const char* out : {"one", "two"}) {
        REQUIRE(run_program(folder, fmt::format("report a -o {} -q --trials 20", out)).exit == 0);
        sleep(1); // the clock is not among them
    }
    CHECK(run_command(folder, "diff -r -x results.sqlite one two").exit == 0);
}

TEST_CASE("program: lists have one order, however files are named") {
    const SmallFolder folder;
    const std::string one = "[item.zebra_hat]\nslot = \"body\"\n[effect.z]\nadd = { attack = 1 }\n";
    const std::string two = "[item.ape_hat]\nslot = \"body\"\n[effect.a]\nadd = { attack = 1 }\n";
    const auto listed = [&](const std::string& first, const std::string& second) {
        folder.write("a/first.toml", first);
        folder.write("a/second.toml", second);
        std::string text;
        for (const char* kind : {"item", "effect", "stat", "tier", "slot"})
            text += run_program(folder, fmt::format("list a {}", kind)).out;
        return text;
    };
    const std::string before = listed(one, two);
    CHECK(has(before, "ape_hat"));
    CHECK(listed(two, one) == before);
}
