#include "cli/earlier_runs.h"
#include "cli/folder_events.h"
#include "cli/report_files.h"
#include "cli/told_verdicts.h"
#include "show/armoury/show_check.h"
#include "show/tune/comparison_words.h"
#include "show/tune/show_comparison.h"
#include "show/tune/show_round.h"
#include "work/audit_work.h"
#include "work/rounds.h"

#include <filesystem>
#include <fmt/chrono.h>
#include <utility>

namespace panoplon {

namespace {

using namespace std::chrono_literals;

/// The files of an armoury and the what-ifs over them, kept for a later run.
class KeptFiles {
  public:
    KeptFiles(Memory& memory, const Invocation& invocation)
        : memory_(memory),
          changes_(invocation.values("set")) {
        std::error_code error;
        const auto folder = std::filesystem::weakly_canonical(invocation.operands().front(), error);
        key_ = hash_text("watched " + folder.string());
    }

    void keep(const Sources& sources) {
        Json files = Json::array();
        for (const Sources::File& file : sources.files())
            if (file.path != "--set") files.push_back({file.path, file.text, file.was});
        std::string bytes;
        Json::to_cbor(
            {{"time", std::time(nullptr)}, {"files", std::move(files)}, {"what_ifs", changes_}},
            bytes);
        memory_.keep(key_, bytes);
    }

    struct Kept {
        ReadArmoury read;
        std::time_t time = 0; ///< of the last look
    };
    /// None where nothing is kept that is an armoury.
    [[nodiscard]] std::optional<Kept> read() {
        const auto bytes = memory_.find(key_);
        if (!bytes) return std::nullopt;
        try {
            const Json kept = Json::from_cbor(*bytes);
            Sources sources;
            for (const Json& file : kept.at("files"))
                sources.add(file.at(0), file.at(1), file.at(2));
            ReadArmoury read = read_sources(std::move(sources), {}, kept.at("what_ifs"));
            if (read.usable()) return Kept{std::move(read), kept.at("time").get<std::time_t>()};
        } catch (const Json::exception&) { // not as it was written
        }
        memory_.reject(key_);
        return std::nullopt;
    }

  private:
    Memory& memory_;
    std::vector<std::string> changes_;
    std::uint64_t key_ = 0;
};

/// Stages that end, too, when a file is saved: what they would find is out of date.
class RoundStages : public Stages {
  public:
    RoundStages(const Invocation& invocation, const FolderEvents& events)
        : invocation_(invocation),
          events_(events) {}
    void run(const char* what, const std::function<void(const Watch&)>& stage) override {
        const ProgressWatch progress(invocation_, what);
        stage({progress.watch().progress, &events_.changed()});
    }

  private:
    const Invocation& invocation_;
    const FolderEvents& events_;
};

class Watching {
  public:
    explicit Watching(const Invocation& invocation)
        : invocation_(invocation),
          folder_(invocation.operands().front()),
          earlier_(invocation),
          kept_(earlier_.memory(), invocation),
          events_(folder_),
          stages_(invocation, events_),
          rounds_(earlier_.memory()) {}

    int run() {
        while (true) {
            events_.begin();
            const int exit = round();
            if (was_interrupted()) break;
            if (invocation_.has("once") && !events_.changed()) return exit;
            if (!invocation_.has("once")) tell_waiting();
            if (!events_.wait()) break;
        }
        return Exit::interrupted;
    }

  private:
    int round() {
        Result<ReadArmoury> opened = read_armoury(folder_, invocation_.values("set"));
        if (!opened.ok() || !opened.value().usable()) {
            // Half of a file may be there: whoever saves it has not told the rest yet.
            if (!events_.settle(300ms) || events_.changed()) return Exit::interrupted;
        }
        if (!opened.ok()) {
            complain_once(printable(opened.failure().message) + "\n");
            return static_cast<int>(opened.failure().cause);
        }
        ReadArmoury read = opened.take();
        if (!read.usable()) {
            tell_mistakes(read);
            return Exit::refused;
        }
        const Armoury& armoury = read.armoury;
        if (!rounds_.present()) tell_left_out(read.sources);
        AuditOptions scope;
        FirstFailure take;
        narrow_by_step(invocation_, armoury, take, scope);
        if (take.failure()) {
            complain_once(take.failure()->message + "\n");
            return static_cast<int>(take.failure()->cause);
        }
        if (armoury.characters.empty() || armoury.encounters.empty()) {
            complain_once("no mistakes; verdicts need a character and an encounter, and there is "
                          "none yet\n");
            return Exit::done;
        }
        return look(std::move(read), std::move(scope));
    }

    int look(ReadArmoury read, AuditOptions scope) {
        const bool was_in_trouble = !trouble_.empty();
        trouble_.clear();
        if (!rounds_.present() && !begin(read, scope)) return Exit::interrupted;
        if (rounds_.present()->read.armoury.hash != read.armoury.hash) {
            if (!glance(std::move(read), std::move(scope))) return Exit::interrupted;
        } else if (was_in_trouble) {
            say("  no mistakes any more; as it was before\n", {});
        }
        if (!rounds_.present()->whole && !search()) return Exit::interrupted;
        keep_told(earlier_.memory(), invocation_, rounds_.present()->read,
                  rounds_.present()->audit);
        if (invocation_.has("o")) write_page();
        return Exit::done;
    }

    /// From where the last run has left it, where that is known.
    bool begin(const ReadArmoury& now, const AuditOptions& scope) {
        std::string since;
        if (std::optional<KeptFiles::Kept> kept = kept_.read();
            kept && kept->read.armoury.hash != now.armoury.hash) {
            AuditOptions old_scope;
            FirstFailure take;
            narrow_by_step(invocation_, kept->read.armoury, take, old_scope);
            if (!take.failure()) {
                since = fmt::format(", as it was at the last look, {:%Y-%m-%d %H:%M}",
                                    fmt::localtime(kept->time));
                if (!rounds_.begin(std::move(kept->read), old_scope, stages_)) return false;
            }
        }
        if (!rounds_.present() && !rounds_.begin(now, scope, stages_)) return false;
        const Looked& looked = *rounds_.present();
        kept_.keep(looked.read.sources);
        tell_error(looked);
        const Armoury& armoury = looked.read.armoury;
        const Comparison::Corridors corridors = corridors_kept(armoury);
        say(fmt::format("{}{}\n{}", armoury.name, since,
                        standing_text(armoury, looked.audit, corridors)),
            {{"standing", standing_json(armoury, looked.audit, corridors)}});
        return true;
    }

    bool glance(ReadArmoury read, AuditOptions scope) {
        const std::shared_ptr<const Looked> before = rounds_.present();
        const auto found = rounds_.glance(std::move(read), std::move(scope), stages_);
        if (!found) return false;
        const Looked& now = *rounds_.present();
        kept_.keep(now.read.sources);
        tell_error(now);
        glanced_ = round_text(found->comparison);
        Json json = round_json(found->comparison, false);
        json["unsure"] = Json::array();
        for (const VerdictShift& shift : found->unsure) json["unsure"].push_back(shift.id);
        say(fmt::format("{}\n", saved_words(found->comparison)) + glanced_ +
                unsure_text(found->unsure) + new_doubts_text(before->read, now.read),
            json);
        return true;
    }

    /// What the glance could not see: told where it makes a difference.
    bool search() {
        const auto comparison = rounds_.search(stages_);
        if (!comparison) return false;
        const std::string text = round_text(*comparison);
        const std::string contexts = counted(rounds_.present()->audit.whole_contexts(), "context");
        if (text == glanced_)
            say(fmt::format("  the whole search of {} says the same\n", contexts),
                round_json(*comparison, true));
        else
            say(fmt::format("  by the whole search of {}, since the one before:\n", contexts) +
                    text,
                round_json(*comparison, true));
        return true;
    }

    void write_page() {
        ReportRequest request;
        FirstFailure take;
        const Looked& looked = *rounds_.present();
        request.audit = looked.scope;
        request.trials = 200;
        const std::string folder = invocation_.value("o");
        MadeReport made =
            make_report(looked.read, nullptr, request, {}, earlier_.recall(looked.read), stages_);
        if (events_.changed()) return;
        KeptOutlet quiet;
        int exit = Exit::done;
        {
            const OutletScope scope(quiet);
            exit = write_report(invocation_, looked.read, std::move(made), folder, stages_);
        }
        if (exit == Exit::done)
            say(fmt::format("  {} is as it stands now\n",
                            (std::filesystem::path(folder) / "report.html").string()),
                {});
        else
            outlet().complain(quiet.complaints());
    }

    [[nodiscard]] static Json round_json(const Comparison& comparison, bool whole) {
        Json json = {{"whole", whole}, {"headline", headline(comparison)}};
        const std::optional<int> better = comparison.better();
        json["better"] = better ? Json(*better) : Json();
        add_comparison_json(json, comparison);
        return json;
    }

    void tell_error(const Looked& looked) {
        if (const auto error = first_error(looked.audit)) report_fight_error(looked.read, *error);
    }

    void tell_mistakes(const ReadArmoury& read) {
        const std::string text = mistakes_text(read);
        if (text == trouble_) return;
        trouble_ = text;
        if (invocation_.has("json")) {
            Document document;
            document.json["mistakes"] = rows_json(diagnostics_table(read, Severity::mistake));
            document.json["mistake_count"] = read.sink.mistake_count();
            say_json(read.armoury, document);
        }
        outlet().complain(fmt::format("\n{}\n{}", time_words(), text));
    }

    void complain_once(const std::string& text) {
        if (text == trouble_) return;
        trouble_ = text;
        outlet().complain(fmt::format("{}  {}", time_words(), text));
    }

    void tell_waiting() {
        if (told_waiting_ || invocation_.has("q") || invocation_.has("json")) return;
        told_waiting_ = true;
        outlet().complain("waiting for the next save; Ctrl-C ends it\n");
    }

    [[nodiscard]] static std::string time_words() {
        return fmt::format("{:%H:%M:%S}", fmt::localtime(std::time(nullptr)));
    }

    /// `text` begins with what is new, and goes on with lines of their own; with --json one line of
    /// it in place of the text.
    void say(const std::string& text, const Json& json) {
        if (invocation_.has("json")) {
            if (json.is_null() || json.empty()) return;
            Document document;
            document.json = json;
            return say_json(rounds_.present()->read.armoury, document);
        }
        std::string told = text;
        if (!text.starts_with("  ")) // a round of its own
            told =
                fmt::format("{}{}  {}", std::exchange(said_, true) ? "\n" : "", time_words(), text);
        const std::string shown = text_for_outlet(invocation_, told);
        if (!outlet().say(shown)) outlet().complain("panoplon: can't write to standard output\n");
    }

    void say_json(const Armoury& armoury, const Document& document) {
        const Json json = framed(invocation_, armoury, document, 0);
        if (!outlet().say(json.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n"))
            outlet().complain("panoplon: can't write to standard output\n");
    }

    const Invocation& invocation_;
    std::string folder_;
    EarlierRuns earlier_;
    KeptFiles kept_;
    FolderEvents events_;
    RoundStages stages_;
    Rounds rounds_;
    std::string trouble_; ///< that was told last, and holds
    std::string glanced_; ///< what the last glance told
    bool told_waiting_ = false;
    bool said_ = false; ///< any round
};

} // namespace

int run_watch(const Invocation& invocation) {
    if (!invocation.has("once") && !outlet().watched())
        return report_failure({Cause::usage,
                               "'watch' stays until Ctrl-C, which nobody can press here",
                               "--once looks once"});
    const std::string& folder = invocation.operands().front();
    std::error_code error;
    if (!std::filesystem::is_directory(folder, error)) return open_armoury(invocation).exit;
    const StopWish stop;
    return Watching(invocation).run();
}

} // namespace panoplon
