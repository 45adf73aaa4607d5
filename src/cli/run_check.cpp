#include "cli/session.h"
#include "output/show_check.h"

namespace panoplon {

int run_check(const Invocation& invocation) {
    Result<ReadArmoury> opened = read_armoury(invocation.operands().front());
    if (!opened.ok()) return report_failure(opened.failure());
    const ReadArmoury read = opened.take();
    if (!read.usable()) fmt::print(stderr, "{}", mistakes_text(read));
    return show(invocation, read.armoury, show_check(read), 0,
                read.usable() ? Exit::done : Exit::refused);
}

} // namespace panoplon
