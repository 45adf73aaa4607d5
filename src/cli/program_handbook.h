// All that the program can explain: its pages, its tables, and the armouries that it carries.
#pragma once

#include "show/armoury/handbook.h"

#include <memory>

namespace panoplon {

class ProgramHandbook {
  public:
    ProgramHandbook();
    [[nodiscard]] const Handbook& handbook() const { return handbook_; }

  private:
    std::unique_ptr<const ReadArmoury> demo_, workshop_;
    Handbook handbook_;
};

} // namespace panoplon
