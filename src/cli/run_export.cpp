#include "cli/session.h"
#include "output/show_export.h"

namespace panoplon {

int run_export(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    return show(invocation, opened.armoury(), show_export(*opened.read), 0);
}

} // namespace panoplon
