// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace ibuki::places {

// Written by the build (tests/CMakeLists.txt): absolute paths.
extern const char* const testData;
extern const char* const source;
extern const char* const locale;
extern const char* const sampleProject;
extern const char* const command;
extern const char* const simulatedInstrument;
extern const char* const program; ///< the window; "" in builds without it

} // namespace ibuki::places
