// Seconds by their usual names.
#pragma once

namespace jig {

inline constexpr double kMinute = 60, kHour = 3600, kDay = 86400;  // s

}  // namespace jig
