#include "cli/command.h"

namespace panoplon {

namespace {

constexpr OptionRow level_row = {
    "level", "N", "the character's level; the last of the loadout's levels when left out"};
constexpr OptionRow levels_row = {"level", "N|A-B", "only these levels"};
constexpr OptionRow character_row = {"character", "ID",
                                     "only this character; may be given several times"};
constexpr OptionRow encounter_row = {"encounter", "ID",
                                     "only this encounter; may be given several times"};
constexpr OptionRow seed_row = {"seed", "N", "seed of the random draws; 1 when left out"};
constexpr OptionRow set_row = {
    "set", "KEY=VALUE",
    "a what-if for this run, as in item.reed_coat.add.guard=20; may be given several times"};
constexpr OptionRow anew_row = {"anew", "",
                                "searches everything, and keeps nothing of it for later runs"};
constexpr OptionRow even_row = {"even-luck", "", "no trials: every chance by its expectation"};

} // namespace

std::span<const CommandRow> command_rows() {
    static const std::vector<CommandRow> rows = {
        {"demo",
         "[DIR]",
         "writes the demo armoury and runs the whole example on it",
         "Writes DIR/armoury (DIR is `panoplon-demo` when left out, and must be absent or empty), "
         "then runs every command on it, from check to export, and puts what they write into "
         "DIR/results. One line tells what each command is for and one what it found; all that "
         "they "
         "say is in DIR/results/texts.",
         "panoplon demo marsh",
         {{"full", "", "prints all that the commands say"}, anew_row},
         run_demo},
        {"new",
         "DIR",
         "starts an armoury, or an empty table",
         "Writes a small, commented armoury that passes `check --strict` into DIR, which must be "
         "absent or empty. With --table KIND, DIR is a new file ending in .csv, and gets the "
         "headers of that kind; with --for, the stats of an armoury too.",
         "panoplon new first",
         {{"table", "KIND", "writes an empty CSV table of items, foes, tiers … instead"},
          {"for", "ARMOURY", "whose stats the table has columns for"}},
         run_new},
        {"check",
         "ARMOURY",
         "every mistake and every doubt",
         "A mistake has to be put right before anything else runs; a doubt is legal but surely not "
         "meant, and silenced where it is by `allow` in the file. Exit 1 when there are mistakes.",
         "panoplon check marsh/armoury",
         {{"strict", "", "doubts count as mistakes: exit 1 when there are any"}},
         run_check},
        {"explain",
         "[ARMOURY] [WORD]",
         "what a word, key, rule, doubt or command is; what a thing does",
         "Alone: all that can be explained. With a WORD: a key (cooldown, item.use.cooldown), a "
         "kind, a rule (M51), a doubt, a verdict, a term, a command. With ARMOURY and a thing of "
         "it (item.reed_coat): which of its keys count and which don't and why, who names it, what "
         "it can do and what it can't and why not.",
         "panoplon explain item.use.cooldown",
         {},
         run_explain},
        {"card",
         "ARMOURY ITEM…",
         "an item's sheet",
         "Modifiers with the tier's, weight and value for one and for a stack, budget spent "
         "against allowed, who can wear it, what outclasses it on paper.",
         "panoplon card marsh/armoury reed_coat wax_draught",
         {},
         run_card},
        {"list",
         "ARMOURY [KIND]",
         "what there is, sorted and filtered",
         "Without KIND how many there are of each. Items come with a grid of tier × slot, its "
         "holes, and how many there are at each level; stats with who gives them.",
         "panoplon list marsh/armoury item --slot head --sort level",
         {{"tier", "ID", "only items of this tier"},
          {"slot", "ID", "only items that take a place of this slot"},
          levels_row,
          {"tag", "WORD", "only items with this tag"},
          {"sort", "KEY", "name, slot, tier, level, weight, value, spent, or a stat"},
          {"ids", "", "only the ids, one a line"}},
         run_list},
        {"equip",
         "ARMOURY LOADOUT [OTHER]…",
         "a character wearing a loadout; with OTHER, the two side by side, or more",
         "Places and sockets, pack, load with the distance to the next edge and what crossing it "
         "costs, bag, sets with what the next step lacks, each stat with the parts that it is made "
         "from, and everything that is refused with every reason. Exit 1 when something is "
         "refused. With OTHER: both by place and by stat, and what each single change gives alone "
         "and all together, in stats and in power; of three and more, places, stats, load and "
         "power.",
         "panoplon equip marsh/armoury ringer_early --level 6",
         {level_row,
          {"wear", "ITEM", "puts an item on first; what is in its way goes to the pack"},
          {"off", "ITEM", "takes an item off first, into the pack"},
          {"find", "ITEM=N", "takes up N of an item first, as far as they fit"}},
         run_equip},
        {"fight",
         "ARMOURY LOADOUT ENCOUNTER",
         "many trials of one encounter",
         "Wins, times, damage by action, type and source, uses, waste and effect uptimes, with "
         "95 % intervals; what even luck says; one trial told as a table and drawn with -o. With "
         "--other or --other-set: two fights under the same luck, each difference with its "
         "interval, whether it can be told from none, and how many trials would tell it.",
         "panoplon fight marsh/armoury ringer_early causeway --level 10 --trials 2000 -o out",
         {level_row,
          {"trials", "N", "number of trials; 1000 when left out"},
          {"precision", "P",
           "goes on, from that number, until the share of wins is known within ± P (0.01)"},
          seed_row,
          even_row,
          {"log", "", "tells that trial line by line, too"},
          {"trial", "N", "the trial that is told; 0, the first, when left out"},
          {"margin", "", "finds the margin of each trial, too"},
          {"why", "THING",
           "why a use, an action, an effect or a swap happens as it does, or never; what a stat "
           "is made from; may be given several times"},
          {"other", "LOADOUT", "fights with this loadout too, under the same luck, and compares"},
          {"other-set", "KEY=VALUE",
           "the same, with this what-if for the other side alone; may be given several times"},
          {"timeline", "FILE", "writes the told trial's events to this CSV file"}},
         run_fight,
         true},
        {"curve",
         "ARMOURY",
         "power and margin over level",
         "Power (the margin against the yardstick) and the margin against each encounter, by even "
         "luck and as p10, p50 and p90 of trials: of each loadout; with --by tier, of the best "
         "legal outfit of each tier and those below; with --by character or encounter, of the best "
         "of all. Findings tell, each in a sentence, where curves leave the wanted corridor, "
         "cross, jump, dip or stall, what a tier is worth in levels, where a load band begins to "
         "bind, and where what a player counts steps or stays.",
         "panoplon curve marsh/armoury --character ringer -o out",
         {levels_row,
          character_row,
          encounter_row,
          {"loadout", "ID", "only this loadout; may be given several times"},
          {"by", "WHAT", "loadout, tier, character or encounter; loadout when left out"},
          {"linear", "", "figures with margins on a linear axis, from 0"},
          {"trials", "N", "trials a point; 100 when left out"},
          seed_row,
          even_row,
          anew_row},
         run_curve,
         true},
        {"journey",
         "ARMOURY JOURNEY",
         "a character's way through stages, with finds",
         "Many trials of a journey: fights won and lost, finds by drop tables, what is put on by "
         "the player's policy, consumables found and spent, upgrades bought with coin, levels "
         "gained. Tells how far it leads, in how many fights and why it ends; power at each stage, "
         "by level and over time as p10, p50 and p90, against the wanted corridor; the time to "
         "each level; what is in the pack; and of each item in what share it is found and worn, "
         "from which level on, and for how much of all fights.",
         "panoplon journey marsh/armoury marsh_road -o out",
         {{"trials", "N", "number of trials; 1000 when left out"}, seed_row},
         run_journey,
         true},
        {"best",
         "ARMOURY",
         "the best legal loadout of a context, and its rivals",
         "Looks for the loadout with the highest margin by even luck for a character at a level "
         "against an encounter, with what it packs, under what is asked for; then for the best "
         "without each thing that it has. Where the outfits are few, all are tried and the best is "
         "proven. Where they are many, what none of them exceeds on paper is told: where more of a "
         "stat in its own direction, and more to use, never harms.",
         "panoplon best marsh/armoury --character ringer --level 12 --encounter ford",
         {levels_row,
          character_row,
          encounter_row,
          {"step", "N", "look at every N levels; as the armoury's audit when left out"},
          {"tier", "ID", "only gear of this tier and below, and of no tier"},
          {"with", "ITEM", "worn, or one of it packed; may be given several times"},
          {"without", "ITEM", "never; may be given several times"},
          {"value-limit", "V", "of all that is worn and packed, at most"},
          {"bound-fights", "N",
           "fights a context to bound what no outfit exceeds; 5000 when left out, 0: no bound"},
          anew_row},
         run_best,
         true},
        {"weigh",
         "ARMOURY LOADOUT ENCOUNTER",
         "the price of weight",
         "By even luck: the margin of a loadout as its capacity grows or shrinks, where each band "
         "begins to cost, and with every more of each consumable until they no longer pay or no "
         "longer fit. Tells how many are worth carrying, what would fill the room that is left, "
         "and whether a load stands on the very edge of a band, where `from` or `above` decides.",
         "panoplon weigh marsh/armoury ringer_early causeway --level 6 -o out",
         {level_row},
         run_weigh},
        {"audit",
         "ARMOURY",
         "verdicts on every worn item and every consumable",
         "Finds the best loadout of each context (character × level × encounter) by even luck, and "
         "what is lost without an item, with it, and with its place left "
         "empty. Names items that are dominant, useless, outclassed and so on, each with its "
         "numbers and a sentence.",
         "panoplon audit marsh/armoury -o out",
         {levels_row,
          character_row,
          encounter_row,
          {"step", "N", "judge every N levels; as the armoury says when left out"},
          {"sample", "N", "for a quick look: only N of the contexts, spread over all"},
          {"item", "ID", "judges only this item; may be given several times"},
          {"slot", "ID", "judges only what is worn there; may be given several times"},
          {"tier", "ID", "judges only gear of this tier; may be given several times"},
          {"trials", "N",
           "of each loadout that confirms what is dominant, useless or a burden; 100 when left "
           "out, 0 for none and no lift"},
          seed_row,
          {"by", "WHAT",
           "pattern, tag, set or tier: judges groups, too, each banned as one; of tiers also what "
           "each is "
           "worth in levels"},
          {"pairs", "", "finds what works together beyond its parts, and what gets in the way"},
          {"all", "", "lists every item, sets, tiers and upgrades, not only what calls for a hand"},
          {"detail", "FILE", "writes one row per item and context to this CSV file"},
          {"fail-on", "VERDICTS",
           "ends with 4 when anything has one of these and does not accept it: dominant,useless"},
          anew_row},
         run_audit,
         true},
        {"tune",
         "ARMOURY [ITEM] [STAT]",
         "the fair range of one number of one item; with --all, what makes all fair",
         "Judges the item with that number from nothing to absurd: which verdict it would have, "
         "between which values it is fair, where hits or picks step, and the smallest change that "
         "makes it fair. Then what that change does to every other verdict. STAT is a stat "
         "(attack), one kind of modifier of it (percent.attack), a key with a number (weight, "
         "use.restore.health), or a whole path to a number elsewhere that bears on the item "
         "(effect.stormy.percent.attack, set.choir.step.1.add.guard). With --all: for everything "
         "that is dominant, useless or a burden the one number whose change is the smallest, until "
         "an audit of all changes together finds none. Writes nothing into the armoury.",
         "panoplon tune marsh/armoury deep_clapper percent.attack --write",
         {levels_row,
          character_row,
          encounter_row,
          {"step", "N", "judge every N levels; as the armoury's audit when left out"},
          {"at", "VALUE", "looks at what this value upsets, in place of the smallest change"},
          {"alone", "", "leaves the other verdicts alone: that takes an audit or two"},
          {"all", "", "in place of ITEM and STAT: everything that is unfair"},
          {"write", "", "prints the change as a patch"},
          anew_row},
         run_tune,
         true},
        {"compare",
         "ARMOURY [CHANGED]",
         "what a change does to items, sheets, curves and verdicts",
         "Two folders, before and after; or one, and what --set makes of it (with two, --set is "
         "laid over the second). Tells what was changed key by key, which verdicts moved, which "
         "stats of loadouts and which margins, of loadouts and of the best gear of each context. "
         "Contexts that the change can't touch are searched once.",
         "panoplon compare marsh/armoury --set item.deep_clapper.percent.attack=0 -o out",
         {levels_row,
          character_row,
          encounter_row,
          {"step", "N", "judge every N levels; as the armoury's audit when left out"},
          {"tolerance", "P", "ends with 4 when the margin of a loadout moved by more than P %"},
          {"fail-on", "VERDICTS", "ends with 4 when anything came to have one of these"},
          anew_row},
         run_compare,
         true},
        {"watch",
         "ARMOURY",
         "tells after each save whether the armoury is better now",
         "Stays until Ctrl-C. After each save of a file of the armoury: mistakes with their "
         "places; "
         "else what was changed, how many things call for a hand and how many curves keep to their "
         "corridor, before and now, what newly calls and what no longer does, and which loadouts "
         "moved most. First at a glance, by the outfits that were found before; then by a whole "
         "search, where that says otherwise. A later run goes on from where the last one was. With "
         "-o the page, its figures and the workbook are made anew after each.",
         "panoplon watch marsh/armoury",
         {levels_row,
          character_row,
          encounter_row,
          {"step", "N", "judge every N levels; as the armoury's audit when left out"},
          {"once", "",
           "looks once: tells what has changed since the last look, by a whole search, and ends"},
          anew_row},
         run_watch},
        {"editor",
         "",
         "mistakes, cards, completion and renaming, in an editor",
         "Speaks the Language Server Protocol 3.17 on standard input and output; an editor starts "
         "it. Of the armoury that a file is in, as it is typed: mistakes and doubts; what may "
         "stand at a place: kinds, keys, ids, words, names in formulas, headers of tables; what a "
         "word is: an item's card with what the last audit or watch said of it, another thing, a "
         "key, a doubt, a verdict; where a thing is defined and where it is named; and another id "
         "for it wherever it is named, in TOML and tables alike. Nothing is written but by the "
         "editor.",
         "panoplon editor",
         {},
         run_editor},
        {"report",
         "ARMOURY",
         "all of it as one page and as a workbook",
         "Writes report.html, a page that needs no network, and report.xlsx into the folder of -o "
         "(`panoplon-report` when left out): what to look at first and why, verdicts, the map of "
         "the audit, pairs, curves, the tier ladder, journeys, loadouts, a fight of each, doubts, "
         "and the "
         "card of every item. Figures stand in the page, and with their numbers in figures/.",
         "panoplon report marsh/armoury -o out",
         {{"only", "SECTIONS",
           "only these: first,changes,verdicts,map,pairs,curves,ladder,journeys,loadouts,fights,"
           "doubts,items"},
          {"title", "TEXT", "the title; the armoury's name when left out"},
          {"compare", "OLD", "an older armoury: what changed since, too"},
          levels_row,
          character_row,
          encounter_row,
          {"step", "N", "judge every N levels; as the armoury's audit when left out"},
          {"trials", "N", "of each fight, point of a curve and journey; 200 when left out"},
          seed_row,
          anew_row},
         run_report,
         true},
        {"history",
         "ARMOURY",
         "how verdicts and curves moved from run to run",
         "Every run with -o DIR adds its tables to DIR/results.sqlite. This lists the runs of the "
         "armoury that are kept, and tells which verdicts and curves moved between those with the "
         "same command and arguments. A run that is repeated on the same files takes the place of "
         "the former one.",
         "panoplon history marsh/armoury --results out",
         {{"results", "DIR",
           "the folder that was given to -o; `results` beside the armoury when left out"}},
         run_history},
        {"export",
         "ARMOURY",
         "the armoury resolved, in open formats",
         "Patterns and defaults written out: as JSON with a JSON Schema, as CSV tables and as one "
         "TOML file, both of which read back to the same armoury; with --xlsx as a workbook that "
         "does so too, with lists of tiers, slots and the like to choose from; and, with --sqlite, "
         "as one SQLite file with a table for each kind.",
         "panoplon export marsh/armoury -o out",
         {{"xlsx", "DIR", "writes it into this folder, as armoury.toml and a workbook"},
          {"sqlite", "FILE", "writes the armoury into this SQLite file"}},
         run_export},
    };
    return rows;
}

std::vector<OptionRow> options_of(const CommandRow& command) {
    std::vector<OptionRow> rows = command.options;
    if (command.operands.find("ARMOURY") != std::string_view::npos) rows.push_back(set_row);
    rows.insert(rows.end(), common_options().begin(), common_options().end());
    return rows;
}

std::span<const OptionRow> common_options() {
    static constexpr OptionRow rows[] = {
        {"json", "", "one JSON document on standard output in place of the text"},
        {"o", "DIR",
         "writes tables (CSV), figures (PNG, SVG, script) and JSON into DIR, and says where"},
        {"threads", "N", "threads to work with; the results are the same for any number"},
        {"colour", "WHEN", "auto, always or never; auto colours on a terminal, without NO_COLOR"},
        {"q", "", "no progress and no list of files"},
        {"help", "", "this help"},
    };
    return rows;
}

} // namespace panoplon
