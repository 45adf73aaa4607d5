// What audits find of what was planted, by layout of the gear and by kind of what is wrong: recall
// and precision.
#include "support/planted.h"

#include <cstdlib>
#include <fmt/format.h>

using namespace panoplon::test;

namespace {

void print(const char* name, const Found::OfKind& sum) {
    const auto share = [](int part, int whole) {
        return whole == 0 ? std::string("—") : fmt::format("{:.3f}", double(part) / whole);
    };
    fmt::print("{:<16}{:>9}{:>9}{:>9}{:>9}{:>11}\n", name, sum.planted, sum.told, sum.found,
               share(sum.found, sum.planted), share(sum.rightly, sum.told));
}

} // namespace

/// Takes how many seeds are tried of each layout; 5 where that is not said.
int main(int argc, char** argv) {
    const int seeds = argc > 1 ? std::max(1, std::atoi(argv[1])) : 5;
    Found all;
    fmt::print("{:<16}{:>9}{:>9}{:>9}{:>9}{:>11}\n", "", "planted", "told", "found", "recall",
               "precision");
    for (std::size_t layout = 0; layout < std::size(layout_names); ++layout) {
        Found of_layout;
        PlantedSize size;
        size.slots = 5;
        size.share = 0.6;
        size.layout = static_cast<Layout>(layout);
        for (int seed = 1; seed <= seeds; ++seed)
            of_layout.add(audit_planted(make_planted(static_cast<std::uint64_t>(seed), size)));
        print(layout_names[layout], of_layout.all());
        all.add(of_layout);
    }
    for (std::size_t kind = 0; kind < planted_kinds; ++kind)
        print(planted_names[kind], all.kinds[kind]);
    print("all", all.all());
    fmt::print("\n{}", all.wrong);
    return 0;
}
