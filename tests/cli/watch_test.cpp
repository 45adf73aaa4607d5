// `watch`: what each save did, told at once and by a whole search.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <chrono>
#include <csignal>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <thread>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;
namespace fs = std::filesystem;

namespace {

/// Two blades of which one is too good, and a loadout that wears it.
std::string blades(const std::string& attack) {
    return arena(piece("plain", "hand", "add = { attack = 8 }") +
                 piece("keen", "hand", "add = { attack = " + attack + " }") +
                 piece("cap", "head", "add = { max_health = 30 }") +
                 "[loadout.own]\ncharacter = \"hero\"\nworn = { hand = \"keen\" }\n");
}

struct BladesFolder : TempFolder {
    BladesFolder() { save("8"); }
    void save(const std::string& attack) const { write("a/armoury.toml", blades(attack)); }
};

/// `watch a` in the background, until it is told to end.
class Background {
  public:
    explicit Background(const TempFolder& folder, const std::string& arguments = {})
        : folder_(folder),
          runner_([&folder, arguments, this] {
              run_ = run_command(folder, "sh -c 'echo $$ > pid.txt; exec \"" PANOPLON_BINARY
                                         "\" watch a " +
                                             arguments + "'");
          }) {}
    ~Background() { (void)end(); }
    Background(const Background&) = delete;
    Background& operator=(const Background&) = delete;

    /// Whether it says so within some seconds, so many times.
    [[nodiscard]] bool says(const std::string& words, std::size_t times = 1) const {
        for (int i = 0; i < most_looks; ++i) {
            const std::string said = told();
            std::size_t count = 0;
            for (std::size_t at = said.find(words); at != std::string::npos;
                 at = said.find(words, at + 1))
                ++count;
            if (count >= times) return true;
            std::this_thread::sleep_for(std::chrono::milliseconds(50));
        }
        UNSCOPED_INFO(told());
        return false;
    }
    [[nodiscard]] std::string told() const {
        std::string text;
        for (const char* stream : {"out.txt", "err.txt"})
            if (folder_.has(stream)) text += folder_.read(stream);
        return text;
    }
    const Run& end() {
        if (!runner_.joinable()) return run_;
        for (int i = 0; i < most_looks && !folder_.has("pid.txt"); ++i)
            std::this_thread::sleep_for(std::chrono::milliseconds(50));
        kill(std::stoi(folder_.read("pid.txt")), SIGTERM);
        runner_.join();
        return run_;
    }

  private:
    static constexpr int most_looks = 600;

    const TempFolder& folder_;
    Run run_;
    std::thread runner_;
};

} // namespace

TEST_CASE("program: watch tells after each save whether it is better now") {
    const BladesFolder folder;
    Background watch(folder);
    REQUIRE(watch.says("waiting for the next save"));
    CHECK(watch.says("4 worn items") == false);
    folder.save("16");
    REQUIRE(watch.says("item.keen: add.attack 8 → 16"));
    CHECK(watch.says("loadouts that moved most: own against "));
    REQUIRE(watch.says("the whole search of "));
    folder.save("8");
    CHECK(watch.says("item.keen: add.attack 16 → 8"));
    CHECK(watch.says("the whole search of ", 2));
    const Run& run = watch.end();
    CHECK(run.exit == 130);
    CHECK(has(run.out, "Better: "));
    CHECK(has(run.out, "Worse: "));
}

TEST_CASE("program: watch tells mistakes with their places, once, and when they are gone") {
    const BladesFolder folder;
    Background watch(folder);
    REQUIRE(watch.says("waiting for the next save"));
    folder.save("\"much\"");
    REQUIRE(watch.says("1 mistake"));
    folder.write("a/notes.txt", "changes nothing"); // told once
    folder.write("a/armoury.toml", blades("8"));
    CHECK(watch.says("no mistakes any more; as it was before"));
    fs::rename(folder / "a", folder / "b");
    CHECK(watch.says("there is no folder 'a'"));
    fs::rename(folder / "b", folder / "a");
    CHECK(watch.says("no mistakes any more; as it was before", 2));
    folder.save("9");
    CHECK(watch.says("item.keen: add.attack 8 → 9"));
    const std::string told = watch.end().err;
    CHECK(told.find("1 mistake") == told.rfind("1 mistake"));
    CHECK(has(told, "armoury.toml:"));
}

TEST_CASE("program: watch --once tells what has changed since the last look") {
    const BladesFolder folder;
    const Run first = run_program(folder, "watch a --once");
    CHECK(first.exit == 0);
    CHECK(has(first.out, "nothing calls for a hand"));
    folder.save("40");
    const Run second = run_program(folder, "watch a --once --json");
    CHECK(second.exit == 0);
    std::vector<Json> lines;
    std::istringstream text(second.out);
    for (std::string line; std::getline(text, line);) lines.push_back(Json::parse(line));
    REQUIRE(lines.size() == 3); // as it was, at a glance, by a whole search
    CHECK(lines[0]["standing"]["calls"].empty());
    CHECK(lines[1]["whole"] == false);
    CHECK(lines[2]["whole"] == true);
    CHECK(lines[1]["calls"]["newly"] == Json::array({"keen"})); // it was changed itself;
    CHECK(lines[1]["unsure"] == Json::array({"plain"}));        // of this a search is surer
    CHECK(lines[2]["calls"]["newly"] == Json::array({"plain", "keen"}));
    const Json compared = Json::parse(run_program(folder, "audit a --json --trials 0").out);
    std::size_t calling = 0;
    for (const Json& item : compared["items"])
        calling += item["verdict"] == "dominant" || item["verdict"] == "useless" ||
                   item["verdict"] == "outclassed";
    CHECK(lines[2]["calls"]["after"] == calling);
    const Run third = run_program(folder, "watch a --once");
    CHECK(!has(third.out, "→"));
    folder.save("\"much\"");
    const Run wrong = run_program(folder, "watch a --once");
    CHECK(wrong.exit == 1);
    CHECK(has(wrong.err, "1 mistake"));
    CHECK(run_program(folder, "watch nowhere --once").exit == 3);
}

TEST_CASE("program: watch -o leaves the page as it stands after the last save") {
    const BladesFolder folder;
    CHECK(run_program(folder, "watch a --once -o out").exit == 0);
    const std::string page = folder.read("out/report.html");
    folder.save("40");
    CHECK(run_program(folder, "watch a --once -o out").exit == 0);
    CHECK(folder.read("out/report.html") != page);
    CHECK(run_program(folder, "report a -o made").exit == 0);
    CHECK(folder.read("out/report.html") == folder.read("made/report.html"));
}
