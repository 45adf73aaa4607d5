#include "judge/audit/context_rounds.h"

#include "base/parallel.h"
#include "base/text.h"

#include <algorithm>
#include <atomic>

namespace panoplon {

namespace {

std::uint64_t hash_number(std::uint64_t number, std::uint64_t seed) {
    return hash_text({reinterpret_cast<const char*>(&number), sizeof number}, seed);
}

/// What a context hangs on by itself: the rules, what can be had in it, and (in `before`) where it
/// begins.
std::uint64_t key_of(const Armoury& armoury, const Recall& recall,
                     const std::vector<ItemId>& groups, const Search& search,
                     std::uint64_t before) {
    std::uint64_t key = hash_number(recall.edition, before);
    key = hash_number(recall.content.rules, key);
    key = hash_text(armoury.at(search.context().character).id, key);
    key = hash_text(armoury.at(search.context().encounter).id, key);
    key = hash_number(static_cast<std::uint64_t>(search.context().level), key);
    for (const std::vector<ItemId>& items : {search.wearable(), search.usable()})
        for (const ItemId item : items) {
            key = hash_text(armoury.at(item).id, key);
            key = hash_text(armoury.at(groups[item.index()]).id, key);
            key = hash_number(recall.content.items[item.index()], key);
        }
    return key;
}

class Rounds {
  public:
    Rounds(const Armoury& armoury, const std::vector<ItemId>& groups, const ContextScope& scope,
           const Watch& watch, const Recall& recall, const SeeSearch& see)
        : armoury_(armoury),
          groups_(groups),
          watch_(watch),
          recall_(recall),
          see_(see) {
        for (ContextChain& of : context_chains(armoury, scope)) {
            contexts_ += of.levels.size();
            lines_.push_back({{std::move(of), {}, 0}, nullptr, {}, hash_start, 0, {}, {}});
        }
        for_each_in_parallel(lines_.size(), [&](std::size_t i) {
            lines_[i].search = std::make_unique<Search>(armoury, groups);
        });
    }

    std::vector<MeasuredChain> run() {
        for (const int level : levels()) {
            begin(level);
            for (std::size_t first = 0; first < met_.size();) {
                const std::size_t last = end_of_character(first);
                if (!recall_all(first, last))
                    for (std::size_t i = first; i < last; ++i) searched_.push_back(met_[i]);
                first = last;
            }
            search_all();
            if (watch_.stopped()) break;
        }
        std::vector<MeasuredChain> chains;
        for (Line& line : lines_) chains.push_back(std::move(line.chain));
        return chains;
    }

  private:
    struct Line {
        MeasuredChain chain;
        std::unique_ptr<Search> search;
        std::vector<Candidate> before;       ///< the best of the level before
        std::uint64_t own_key;               ///< of what it hangs on by itself, to this level
        std::uint64_t key;                   ///< with its neighbours'
        std::vector<std::size_t> neighbours; ///< of the same character at this level, itself too
        std::optional<Candidate> first;      ///< its best before the neighbours' were tried
    };

    [[nodiscard]] std::vector<int> levels() const {
        std::vector<int> all;
        for (const Line& line : lines_)
            all.insert(all.end(), line.chain.of.levels.begin(), line.chain.of.levels.end());
        std::sort(all.begin(), all.end());
        all.erase(std::unique(all.begin(), all.end()), all.end());
        return all;
    }

    /// Enters a level with every line that has it.
    void begin(int level) {
        met_.clear();
        searched_.clear();
        for (std::size_t i = 0; i < lines_.size(); ++i) {
            const auto& own = lines_[i].chain.of.levels;
            if (std::find(own.begin(), own.end(), level) != own.end()) met_.push_back(i);
        }
        for_each_in_parallel(met_.size(), [&](std::size_t i) {
            Line& line = lines_[met_[i]];
            line.search->enter({line.chain.of.character, level, line.chain.of.encounter},
                               line.before);
            if (recall_.memory)
                line.own_key = key_of(armoury_, recall_, groups_, *line.search, line.own_key);
        });
    }

    /// Past the last of the lines of one character.
    [[nodiscard]] std::size_t end_of_character(std::size_t first) {
        std::size_t last = first;
        while (last < met_.size() &&
               lines_[met_[last]].chain.of.character == lines_[met_[first]].chain.of.character)
            ++last;
        std::uint64_t all = hash_start;
        for (std::size_t i = first; i < last; ++i) all = hash_number(lines_[met_[i]].own_key, all);
        for (std::size_t i = first; i < last; ++i) {
            Line& line = lines_[met_[i]];
            line.key = hash_number(line.own_key, all);
            line.neighbours.assign(met_.begin() + static_cast<std::ptrdiff_t>(first),
                                   met_.begin() + static_cast<std::ptrdiff_t>(last));
        }
        return last;
    }

    /// Takes all of a character's contexts from memory, or none: they are where the others begin.
    bool recall_all(std::size_t first, std::size_t last) {
        if (!recall_.memory) return false;
        std::vector<MeasuredContext> recalled;
        for (std::size_t i = first; i < last; ++i) {
            const Line& line = lines_[met_[i]];
            const RememberedContext* known = recall_.memory->find(line.key);
            auto measured = known ? recall(armoury_, *line.search, *known) : std::nullopt;
            if (!measured) return false;
            recalled.push_back(std::move(*measured));
        }
        for (std::size_t i = first; i < last; ++i) {
            Line& line = lines_[met_[i]];
            ++line.chain.recalled;
            finish(line, std::move(recalled[i - first]));
        }
        return true;
    }

    void search_all() {
        for_each_searched([&](Line& line) {
            line.first.reset();
            if (line.search->find_best()) line.first = line.search->best().candidate;
        });
        for_each_searched([&](Line& line) {
            std::vector<Candidate> others;
            for (const std::size_t other : line.neighbours)
                if (lines_[other].first && &lines_[other] != &line)
                    others.push_back(*lines_[other].first);
            line.search->find_better(others);
            MeasuredContext measured = measure_context(armoury_, groups_, *line.search);
            if (recall_.memory && !measured.context.error)
                recall_.memory->keep(line.key, remember(armoury_, *line.search, measured));
            if (see_)
                see_(static_cast<std::size_t>(&line - lines_.data()), line.chain.measured.size(),
                     *line.search);
            finish(line, std::move(measured));
        });
    }

    template <class Work>
    void for_each_searched(const Work& work) {
        for_each_in_parallel(searched_.size(), [&](std::size_t i) {
            if (!watch_.stopped()) work(lines_[searched_[i]]);
        });
    }

    void finish(Line& line, MeasuredContext measured) {
        line.before.clear();
        if (measured.context.found) line.before = {measured.best};
        line.chain.measured.push_back(std::move(measured));
        const std::size_t now = ++finished_;
        if (watch_.progress) watch_.progress(now, contexts_);
    }

    const Armoury& armoury_;
    const std::vector<ItemId>& groups_;
    const Watch& watch_;
    const Recall& recall_;
    const SeeSearch& see_;
    std::vector<Line> lines_;
    std::vector<std::size_t> met_;      ///< lines that have the level at hand
    std::vector<std::size_t> searched_; ///< of these, those that are not known from before
    std::size_t contexts_ = 0;
    std::atomic<std::size_t> finished_ = 0;
};

} // namespace

std::vector<MeasuredChain> measure_contexts(const Armoury& armoury,
                                            const std::vector<ItemId>& groups,
                                            const ContextScope& scope, const Watch& watch,
                                            const Recall& recall, const SeeSearch& see) {
    return Rounds(armoury, groups, scope, watch, recall, see).run();
}

} // namespace panoplon
