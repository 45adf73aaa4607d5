// What commands share: reading the armoury, finding things by name, options, showing documents.
#pragma once

#include "armoury/read.h"
#include "base/stages.h"
#include "base/text.h"
#include "cli/command.h"
#include "cli/outlet.h"
#include "demo/files.h"
#include "fight/trials.h"
#include "show/document.h"

#include <fmt/format.h>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// Reads the armoury that the first operand names. Mistakes are said to standard error (and, with
/// --json, as a document); then there is none, and `exit` is the code to leave with.
struct Opened {
    std::optional<ReadArmoury> read;
    int exit = Exit::done;
    [[nodiscard]] const Armoury& armoury() const { return read->armoury; }
};
/// `more` are what-ifs beside those of --set.
[[nodiscard]] Opened open_armoury(const Invocation& invocation,
                                  const std::vector<std::string>& more = {});
/// The same of any folder, with these what-ifs and no others.
[[nodiscard]] Opened open_folder(const Invocation& invocation, const std::string& folder,
                                 const std::vector<std::string>& changes);

/// Says to standard error which folders of results were left out of what was read.
void tell_left_out(const Sources& sources);

/// An index by id, or a refusal with "did you mean".
template <class IdType, class List>
[[nodiscard]] Result<IdType> look_up(const char* kind, const List& list, const std::string& id);

/// A whole number from an option, within bounds; `otherwise` where it is not given.
[[nodiscard]] Result<std::uint64_t> whole_option(const Invocation& invocation,
                                                 std::string_view name, std::uint64_t low,
                                                 std::uint64_t high, std::uint64_t otherwise);
/// A number from an option, within bounds; none where it is not given.
[[nodiscard]] Result<std::optional<double>>
number_option(const Invocation& invocation, std::string_view name, double low, double high);
[[nodiscard]] Result<std::uint64_t> seed_option(const Invocation& invocation);
/// `--level` as one level or a range within the armoury's; `otherwise` where it is not given.
[[nodiscard]] Result<LevelRange> levels_option(const Invocation& invocation, const Armoury& armoury,
                                               LevelRange otherwise);
/// The level for a loadout: --level, or the last of its levels.
[[nodiscard]] Result<int> level_option(const Invocation& invocation, const Armoury& armoury,
                                       const Loadout& loadout);

/// Whether a path lies in a folder, or is that folder.
[[nodiscard]] bool lies_in(const std::string& path, const std::string& folder);
/// What is to be written into an armoury's folder is refused: results are not gear.
[[nodiscard]] std::optional<Failure> refuse_into_armoury(const std::string& path,
                                                         const std::string& armoury);

/// Shows a document: text or JSON on standard output, files with -o, where the file of results is
/// added to. Returns the exit code; `otherwise` is the one where all went well.
[[nodiscard]] int show(const Invocation& invocation, const Armoury& armoury,
                       const Document& document, std::uint64_t seed, int otherwise = Exit::done);
/// The same, with files into this folder, whatever -o says, and nothing added to results.
[[nodiscard]] int show_into(const std::string& folder, const Invocation& invocation,
                            const Armoury& armoury, const Document& document, std::uint64_t seed,
                            int otherwise = Exit::done);
/// Adds the document's tables to the file of results in a folder. Returns the exit code.
[[nodiscard]] int keep_results(const std::string& folder, const Invocation& invocation,
                               const Armoury& armoury, const Document& document, std::uint64_t seed,
                               int otherwise);
/// Shows a document that is not about an armoury.
[[nodiscard]] int show_plain(const Invocation& invocation, const Document& document);
/// A text as it is to be said: on a terminal fitted to its width, and coloured where that is
/// wanted.
[[nodiscard]] std::string text_for_outlet(const Invocation& invocation, const std::string& text);
/// The frame that every JSON document has.
[[nodiscard]] Json framed(const Invocation& invocation, const Armoury& armoury,
                          const Document& document, std::uint64_t seed);
/// What was written beside the document: after its text, or where the document is JSON, apart.
void tell_beside(const Invocation& invocation, const std::string& text);

/// Writes files that are compiled in into a folder, which must be absent or empty. Returns their
/// paths.
[[nodiscard]] Result<std::vector<std::string>> write_embedded(std::span<const EmbeddedFile> files,
                                                              const std::string& folder);

/// Whether Ctrl-C, SIGTERM or SIGHUP has come while work was watched: what is shown from then on is
/// partial.
[[nodiscard]] bool was_interrupted();

/// As long as it lives the first Ctrl-C, SIGTERM or SIGHUP is a wish to stop, which work has to
/// look for; the next ends the program at once. One in another changes nothing.
class StopWish {
  public:
    StopWish();
    ~StopWish();
    StopWish(const StopWish&) = delete;
    StopWish& operator=(const StopWish&) = delete;

    /// Heeds what is wished from now on: what was before has been seen to.
    [[nodiscard]] Watch later() const;

  private:
    bool heeds_ = false;
};

/// Tells progress, on a terminal all the time and elsewhere every ten seconds, and heeds a wish to
/// stop. One at a time.
class ProgressWatch {
  public:
    ProgressWatch(const Invocation& invocation, std::string what);
    ~ProgressWatch();
    ProgressWatch(const ProgressWatch&) = delete;
    ProgressWatch& operator=(const ProgressWatch&) = delete;

    [[nodiscard]] const Watch& watch() const { return watch_; }

  private:
    StopWish stop_;
    Watch watch_;
    bool on_terminal_ = false; ///< progress is shown there
};

/// Runs long work under a watch, which is gone again before anything is shown.
template <class Work>
auto watched(const Invocation& invocation, const char* what, Work work) {
    const ProgressWatch progress(invocation, what);
    return work(progress.watch());
}

/// The stages of longer work, each watched like that.
class WatchedStages : public Stages {
  public:
    explicit WatchedStages(const Invocation& invocation) : invocation_(invocation) {}
    void run(const char* what, const std::function<void(const Watch&)>& stage) override {
        watched(invocation_, what, stage);
    }

  private:
    const Invocation& invocation_;
};

/// Says to standard error that a fight could not go on, and where in the files the cause stands.
/// Returns the exit code.
int report_fight_error(const ReadArmoury& read, const FightError& error);

template <class IdType, class List>
Result<IdType> look_up(const char* kind, const List& list, const std::string& id) {
    std::vector<std::string> ids;
    for (std::size_t i = 0; i < list.size(); ++i) {
        if (list[i].id == id) return IdType(i);
        ids.push_back(list[i].id);
    }
    const auto near = nearest_name(id, ids);
    constexpr std::size_t most_named = 30;
    std::string hint;
    if (!near && ids.empty())
        hint = fmt::format("the armoury has no {}", kind);
    else if (!near && ids.size() > most_named)
        hint = fmt::format("there are {}: panoplon list ARMOURY {}", ids.size(), kind);
    else if (!near)
        hint = "there is: " + join(ids, ", ");
    return Failure{Cause::refused,
                   fmt::format("unknown {} '{}'{}", kind, id,
                               near ? fmt::format("; did you mean '{}'?", *near) : ""),
                   hint};
}

/// Every id, or the first refusal.
template <class IdType, class List>
Result<std::vector<IdType>> look_up_all(const char* kind, const List& list,
                                        const std::vector<std::string>& ids) {
    std::vector<IdType> found;
    for (const std::string& id : ids) {
        const Result<IdType> one = look_up<IdType>(kind, list, id);
        if (!one.ok()) return one.failure();
        found.push_back(one.value());
    }
    return found;
}

/// --character, --encounter and --level into the options of a command that has them.
template <class Options>
void narrow(const Invocation& invocation, const Armoury& armoury, FirstFailure& take,
            Options& options) {
    options.characters = take(
        look_up_all<CharacterId>("character", armoury.characters, invocation.values("character")));
    options.encounters = take(
        look_up_all<EncounterId>("encounter", armoury.encounters, invocation.values("encounter")));
    options.levels = take(levels_option(invocation, armoury, armoury.levels));
}

/// The same, and --step.
template <class Options>
void narrow_by_step(const Invocation& invocation, const Armoury& armoury, FirstFailure& take,
                    Options& options) {
    narrow(invocation, armoury, take, options);
    options.step = static_cast<int>(take(
        whole_option(invocation, "step", 1, 1000, static_cast<std::uint64_t>(armoury.audit.step))));
}

} // namespace panoplon
