// What has to hold before anything is measured.
#pragma once

namespace panoplon::bench {

/// The first trials of the reference fight end alike by the engine and by the loop by hand.
[[nodiscard]] bool engine_meets_the_loop();

} // namespace panoplon::bench
