#include "support/armouries.h"

#include "base/text.h"
#include "demo/files.h"
#include "judge/paper/doubts.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <sstream>
#include <stdexcept>

namespace panoplon::test {

namespace fs = std::filesystem;

TempFolder::TempFolder() {
    std::string pattern = (fs::temp_directory_path() / "panoplon-test-").string() +
                          std::string(6, 'X'); // mkdtemp fills these in
    REQUIRE(mkdtemp(pattern.data()) != nullptr);
    path_ = pattern;
}

TempFolder::~TempFolder() {
    std::error_code ignored;
    fs::remove_all(path_, ignored);
}

void TempFolder::write(const std::string& name, const std::string& text) const {
    const fs::path full = fs::path(path_) / name;
    fs::create_directories(full.parent_path());
    std::ofstream(full, std::ios::binary) << text;
}

std::string TempFolder::read(const std::string& name) const {
    std::ifstream in(fs::path(path_) / name, std::ios::binary);
    // Other threads read, too, and what they check is not told apart.
    if (!in) throw std::runtime_error("the test's folder has no file " + name);
    std::stringstream text;
    text << in.rdbuf();
    return text.str();
}

bool TempFolder::has(const std::string& name) const {
    return fs::exists(fs::path(path_) / name);
}

std::string data(const std::string& name) {
    std::ifstream in(PANOPLON_SOURCE "/tests/data/" + name, std::ios::binary);
    INFO("reading: " << name);
    REQUIRE(in);
    std::stringstream text;
    text << in.rdbuf();
    return text.str();
}

std::string duel() {
    return R"([armoury]
format = 1
name = "Duel"
levels = [1, 10]
[combat]
health = "health"
[stat.attack]
[stat.guard]
[stat.haste]
min = -90
[stat.keen]
[stat.might]
[stat.mending]
[stat.max_health]
[stat.max_breath]
[pool.health]
max = "max_health"
regen = "self.mending"
[pool.breath]
max = "max_breath"
[damage.blunt]
mitigated = "amount"
[tier.plain]
rank = 1
[tier.fine]
rank = 2
stat_factor = 2
add = { keen = 1 }
[slot.hand]
[slot.head]
[slot.charm]
count = 2
[action.strike]
every = "1"
deals = { blunt = "self.attack" }
[action.rest]
every = "1"
[character.hero]
base = { max_health = 100, attack = 10, might = 10, max_breath = 50 }
growth = { max_health = 10, attack = 1 }
actions = ["strike"]
[foe.dummy]
base = { max_health = 100 }
actions = ["rest"]
[encounter.spar]
foes = [ { foe = "dummy" } ]
[loadout.bare]
character = "hero"
)";
}

std::string with(const std::string& text, const std::string& from, const std::string& to) {
    const std::size_t at = text.find(from);
    INFO("looking for: " << from);
    REQUIRE(at != std::string::npos);
    return text.substr(0, at) + to + text.substr(at + from.size());
}

std::string biter(int health) {
    return fmt::format("[action.bite]\nevery = \"1\"\ndeals = {{ blunt = \"self.attack\" }}\n"
                       "[foe.biter]\nbase = {{ max_health = {}, attack = 10 }}\n"
                       "actions = [\"bite\"]\n"
                       "[encounter.bites]\nfoes = [ {{ foe = \"biter\" }} ]\n",
                       health);
}

std::string arena(const std::string& more) {
    const std::string grown = with(biter(100), "attack = 10 }\n",
                                   "attack = 10 }\ngrowth = { max_health = 8, attack = 0.5 }\n");
    return with(duel(), "foes = [ { foe = \"dummy\" } ]",
                "foes = [ { foe = \"dummy\" } ]\nweight = 0") +
           grown + more;
}

std::string flat(const std::string& more) {
    return with(with(duel(), "levels = [1, 10]", "levels = [1, 2]"),
                "growth = { max_health = 10, attack = 1 }", "growth = { max_health = 10 }") +
           more;
}

std::string piece(const std::string& id, const std::string& slot, const std::string& keys) {
    return "[item." + id + "]\nslot = \"" + slot + "\"\n" + keys + "\n";
}

std::string ids(const Armoury& armoury, const std::vector<ItemId>& items) {
    std::string text;
    for (const ItemId item : items) text += armoury.at(item).id + " ";
    return text;
}

bool has(const std::string& text, const std::string& part) {
    return text.find(part) != std::string::npos;
}

ReadArmoury read(const std::string& root,
                 const std::vector<std::pair<std::string, std::string>>& more) {
    const TempFolder folder;
    folder.write("armoury.toml", root);
    for (const auto& [name, text] : more) folder.write(name, text);
    Result<ReadArmoury> result = read_armoury(folder.path());
    REQUIRE(result.ok());
    ReadArmoury taken = result.take();
    if (taken.usable()) find_doubts(taken.armoury, taken.sink);
    return taken;
}

Armoury armoury(const std::string& root) {
    ReadArmoury result = read(root);
    INFO(mistakes(result));
    REQUIRE(result.usable());
    return result.armoury;
}

std::string mistakes(const ReadArmoury& result) {
    std::string text;
    for (const Diagnostic& d : result.sink.sorted(Severity::mistake))
        text += fmt::format("{}: {}\n", place(d.span, result.sources), d.message);
    return text;
}

void write_demo(const TempFolder& folder) {
    for (const EmbeddedFile& file : demo_files())
        folder.write(std::string(file.path), std::string(file.text));
}

Armoury demo_armoury() {
    const TempFolder folder;
    write_demo(folder);
    Result<ReadArmoury> result = read_armoury(folder.path());
    REQUIRE(result.ok());
    REQUIRE(result.value().usable());
    return result.take().armoury;
}

Bout::Bout(const Armoury& armoury, const std::string& loadout, const std::string& encounter,
           int level)
    : engine(armoury) {
    const auto id = find_id<LoadoutKind>(armoury.loadouts, loadout);
    const auto against = find_id<EncounterKind>(armoury.encounters, encounter);
    REQUIRE(id.given());
    REQUIRE(against.given());
    setup = set_up_fight(armoury, outfit_of(armoury, armoury.at(id), level), against);
    engine.prepare(setup);
}

FightResult Bout::trial(std::uint64_t number, std::uint64_t seed, double strength) {
    return engine.run(strength, Luck{seed, number});
}
FightResult Bout::even(double strength) {
    return engine.run(strength, std::nullopt);
}
Timeline Bout::tell(std::uint64_t number) {
    return engine.tell(1, Luck{1, number});
}

std::vector<std::string> lines(const Timeline& timeline, const std::string& event) {
    std::vector<std::string> list;
    for (const TimelineEvent& e : timeline.events)
        if (event.empty() || e.event == event)
            list.push_back(fmt::format("{} {} {} {} {} {}", rounded(e.time, 6), e.actor, e.event,
                                       e.source, e.target, rounded(e.amount, 6)));
    return list;
}

Armoury with_pack(const std::string& more, const std::string& pack) {
    return armoury(duel() + biter() + more + "[loadout.l]\ncharacter = \"hero\"\npack = { " + pack +
                   " }\n");
}

std::size_t count(const std::vector<std::string>& lines, const std::string& part) {
    return static_cast<std::size_t>(
        std::count_if(lines.begin(), lines.end(), [&](const std::string& line) {
            return line.find(part) != std::string::npos;
        }));
}

std::vector<double> dealt(const Timeline& timeline, const std::string& actor) {
    std::vector<double> amounts;
    for (const TimelineEvent& event : timeline.events)
        if (event.actor == actor && (event.event == "hits" || event.event == "crits"))
            amounts.push_back(event.amount);
    return amounts;
}

} // namespace panoplon::test
