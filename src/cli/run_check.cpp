#include "cli/session.h"
#include "judge/paper/doubts.h"
#include "show/armoury/show_check.h"

namespace panoplon {

int run_check(const Invocation& invocation) {
    Result<ReadArmoury> opened =
        read_armoury(invocation.operands().front(), invocation.values("set"));
    if (!opened.ok()) return report_failure(opened.failure());
    ReadArmoury read = opened.take();
    tell_left_out(read.sources);
    if (read.usable()) find_doubts(read.armoury, read.sink);
    if (!read.usable()) outlet().complain(mistakes_text(read));
    const bool good = read.usable() && (!invocation.has("strict") || read.sink.doubt_count() == 0);
    return show(invocation, read.armoury, show_check(read), 0, good ? Exit::done : Exit::refused);
}

} // namespace panoplon
