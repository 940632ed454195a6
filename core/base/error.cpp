#include "core/base/error.hpp"

#include <utility>

namespace jig {

InputError::InputError(std::string where, std::string what, std::string mend)
    : std::runtime_error(where + ": " + what + "; " + mend),
      where_(std::move(where)),
      what_(std::move(what)),
      mend_(std::move(mend)) {}

InputError::~InputError() = default;

}  // namespace jig
