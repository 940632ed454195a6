// Progress that nobody watches and nobody stops.
#pragma once

#include "core/base/progress.hpp"

inline jig::Progress quiet;
