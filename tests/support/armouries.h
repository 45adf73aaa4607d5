// Small armouries for tests, written as a designer would and read by the real reader.
#pragma once

#include "armoury/read.h"
#include "fight/margin.h"

#include <string>
#include <utility>
#include <vector>

namespace panoplon::test {

/// A folder that is gone when the test is.
class TempFolder {
  public:
    TempFolder();
    ~TempFolder();
    TempFolder(const TempFolder&) = delete;
    TempFolder& operator=(const TempFolder&) = delete;

    [[nodiscard]] const std::string& path() const { return path_; }
    [[nodiscard]] std::string operator/(const std::string& name) const {
        return path_ + "/" + name;
    }
    void write(const std::string& name, const std::string& text) const;
    [[nodiscard]] std::string read(const std::string& name) const;
    [[nodiscard]] bool has(const std::string& name) const;

  private:
    std::string path_;
};

/// armoury.toml of a duel in whole numbers: the hero strikes for 10 each 1, has 100 health and no
/// armour; the dummy has 100 health and does nothing. Always hits, never crits, no spread, limit
/// 180.
[[nodiscard]] std::string duel();
/// A text with one part replaced; fails the test when the part is not in it.
[[nodiscard]] std::string with(const std::string& text, const std::string& from,
                               const std::string& to);

/// A foe `biter` that bites for 10 each 1, and the encounter `bites` against it.
[[nodiscard]] std::string biter(int health = 1000);
/// The duel with a biter of 100 health that grows, and only `bites` in audits.
[[nodiscard]] std::string arena(const std::string& more);

/// The duel at levels 1 and 2, of which nothing grows: against a dummy that does nothing the margin
/// goes with attack, which is 10 with nothing worn.
[[nodiscard]] std::string flat(const std::string& more);
/// An item of a slot, with these further keys.
[[nodiscard]] std::string piece(const std::string& id, const std::string& slot,
                                const std::string& keys);

/// "one two ", in the order given.
[[nodiscard]] std::string ids(const Armoury& armoury, const std::vector<ItemId>& items);
[[nodiscard]] bool has(const std::string& text, const std::string& part);

/// What a file of tests/data holds.
[[nodiscard]] std::string data(const std::string& name);

/// Reads armoury.toml with the given text, and further files.
[[nodiscard]] ReadArmoury read(const std::string& root,
                               const std::vector<std::pair<std::string, std::string>>& more = {});
/// The same, and fails the test when there is any mistake.
[[nodiscard]] Armoury armoury(const std::string& root);
/// The messages of all mistakes, one a line: "file:line:column: message".
[[nodiscard]] std::string mistakes(const ReadArmoury& read);

/// The demo armoury, as the program writes it.
[[nodiscard]] Armoury demo_armoury();
void write_demo(const TempFolder& folder);

/// A loadout of the armoury against an encounter, by ids.
struct Bout {
    Bout(const Armoury& armoury, const std::string& loadout, const std::string& encounter,
         int level = 1);
    [[nodiscard]] FightResult trial(std::uint64_t number, std::uint64_t seed = 1,
                                    double strength = 1);
    [[nodiscard]] FightResult even(double strength = 1);
    [[nodiscard]] Timeline tell(std::uint64_t number = 0);
    [[nodiscard]] Margin margin() { return even_margin(engine); }
    [[nodiscard]] Margin margin_of_trial() { return trial_margin(engine, {1, 0}); }

    FightSetup setup;
    Engine engine;
};

/// The duel, whose hero has this pack as loadout `l` and meets a biter of 1000 health in `bites`.
[[nodiscard]] Armoury with_pack(const std::string& more, const std::string& pack);
/// How many of the lines have a part.
[[nodiscard]] std::size_t count(const std::vector<std::string>& lines, const std::string& part);
/// What an actor's blows deal, one after the other.
[[nodiscard]] std::vector<double> dealt(const Timeline& timeline, const std::string& actor);

/// "time actor event source target amount" of the events of one kind, or of all for an empty kind.
[[nodiscard]] std::vector<std::string> lines(const Timeline& timeline,
                                             const std::string& event = {});

} // namespace panoplon::test
