#include "cli/session.h"
#include "show/armoury/show_card.h"

namespace panoplon {

int run_card(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    std::vector<ItemId> items;
    int exit = Exit::done;
    for (std::size_t i = 1; i < invocation.operands().size(); ++i) {
        const Result<ItemId> item =
            look_up<ItemId>("item", armoury.items, invocation.operands()[i]);
        if (item.ok())
            items.push_back(item.value());
        else
            exit = report_failure(item.failure());
    }
    if (exit != Exit::done) return exit;
    return show(invocation, armoury, show_cards(armoury, items, compare_on_paper(armoury)), 0);
}

} // namespace panoplon
