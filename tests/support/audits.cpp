#include "support/audits.h"

namespace panoplon::test {

AuditResult audited(const Armoury& armoury, AuditOptions options) {
    options.levels = armoury.levels;
    options.step = armoury.audit.step;
    return audit(armoury, options);
}

} // namespace panoplon::test
