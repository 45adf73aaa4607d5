#include "cli/command.h"

namespace panoplon {

namespace {

constexpr OptionRow level_option = {
    "level", "N", "the character's level; the last of the loadout's levels when left out"};
constexpr OptionRow levels_option = {"level", "N|A-B", "only these levels"};
constexpr OptionRow character_option = {"character", "ID",
                                        "only this character; may be given several times"};
constexpr OptionRow encounter_option = {"encounter", "ID",
                                        "only this encounter; may be given several times"};
constexpr OptionRow seed_option = {"seed", "N", "seed of the random draws; 1 when left out"};
constexpr OptionRow even_option = {"even-luck", "", "no trials: every chance by its expectation"};

} // namespace

std::span<const CommandRow> command_rows() {
    static const std::vector<CommandRow> rows = {
        {"demo",
         "[DIR]",
         "writes the demo armoury and runs the whole example on it",
         "Writes DIR/armoury (DIR is `panoplon-demo` when left out, and must be absent or empty), "
         "then runs check, card, equip, fight, curve and audit on it and "
         "puts what they write into DIR/results.",
         "panoplon demo marsh",
         {},
         run_demo},
        {"check",
         "ARMOURY",
         "every mistake and every doubt",
         "A mistake has to be put right before anything else runs; a doubt is legal but surely not "
         "meant. Exit 1 when there are mistakes.",
         "panoplon check marsh/armoury",
         {},
         run_check},
        {"card",
         "ARMOURY ITEM…",
         "an item's sheet",
         "Modifiers with the tier's, weight and value for one and for a stack, budget spent "
         "against allowed, who can wear it, what outclasses it on paper.",
         "panoplon card marsh/armoury reed_coat wax_draught",
         {},
         run_card},
        {"equip",
         "ARMOURY LOADOUT",
         "a character wearing a loadout",
         "Places, pack, load with the distance to the next edge and what crossing it costs, bag, "
         "each stat with the parts that it is made from, and everything "
         "that is refused with every reason. Exit 1 when something is refused.",
         "panoplon equip marsh/armoury ringer_early --level 6",
         {level_option},
         run_equip},
        {"fight",
         "ARMOURY LOADOUT ENCOUNTER",
         "many trials of one encounter",
         "Wins, times, damage, uses, waste and effect uptimes with 95 % intervals; what even luck "
         "says; one trial told as a table and drawn with -o.",
         "panoplon fight marsh/armoury ringer_early causeway --level 10 --trials 2000 -o out",
         {level_option,
          {"trials", "N", "number of trials; 1000 when left out"},
          seed_option,
          even_option,
          {"trial", "N", "the trial that is told; 0, the first, when left out"},
          {"timeline", "FILE", "writes the told trial's events to this CSV file"}},
         run_fight},
        {"curve",
         "ARMOURY",
         "power and margin over level",
         "For each loadout: power (the margin against the yardstick) and the margin against each "
         "encounter, by even luck and as p10, p50 and p90 of trials. "
         "Findings tell where a curve leaves the wanted corridor.",
         "panoplon curve marsh/armoury --character ringer -o out",
         {levels_option,
          character_option,
          encounter_option,
          {"loadout", "ID", "only this loadout; may be given several times"},
          {"trials", "N", "trials a point; 100 when left out"},
          seed_option,
          even_option},
         run_curve},
        {"audit",
         "ARMOURY",
         "verdicts on every worn item",
         "Finds the best loadout of each context (character × level × encounter) by even luck, and "
         "what is lost without an item, with it, and with its place left "
         "empty. Names items that are dominant, useless, outclassed and so on, each with its "
         "numbers and a sentence.",
         "panoplon audit marsh/armoury -o out",
         {levels_option,
          character_option,
          encounter_option,
          {"step", "N", "judge every N levels; as the armoury says when left out"},
          {"detail", "FILE", "writes one row per item and context to this CSV file"}},
         run_audit},
    };
    return rows;
}

std::span<const OptionRow> common_options() {
    static constexpr OptionRow rows[] = {
        {"json", "", "one JSON document on standard output in place of the text"},
        {"o", "DIR",
         "writes tables (CSV), figures (PNG, SVG, script) and JSON into DIR, and says where"},
        {"threads", "N", "threads to work with; the results are the same for any number"},
        {"q", "", "no progress and no list of files"},
        {"help", "", "this help"},
    };
    return rows;
}

} // namespace panoplon
