#include "formula/quantity.h"

#include "base/text.h"

namespace panoplon {

std::string Quantity::text() const {
    return fixed() ? shortest(number) : formula.text;
}

} // namespace panoplon
