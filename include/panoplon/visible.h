// What the library shows to others; everything else stays within it.
#pragma once

#define PANOPLON_VISIBLE __attribute__((visibility("default")))
