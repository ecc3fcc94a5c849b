// SPDX-License-Identifier: GPL-3.0-or-later
// Arbitrary bytes as a log: reading ends in a trace or in an InputError with a sentence, never otherwise. The
// first byte chooses what the reader is told, the rest is the file. Run by tools/fuzz with libFuzzer.

#include "core/base/input_error.h"
#include "store/log/log_reader.h"
#include "words/words.h"

#include <cstdint>
#include <cstdlib>

namespace {

ibuki::LogOptions optionsOf(std::uint8_t choice) {
    ibuki::LogOptions options;
    options.allChannels = (choice & 1) != 0;
    options.ambientOnly = (choice & 2) != 0;
    if ((choice & 4) != 0)
        options.dialect.separator = ibuki::separators[(choice >> 3) % std::size(ibuki::separators)];
    if ((choice & 32) != 0) options.dialect.headerLine = 1 + (choice >> 6);
    if ((choice & 128) != 0) options.time.style = static_cast<ibuki::TimeStyle>((choice >> 3) % 5);
    return options;
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size == 0) return 0;
    const std::string_view bytes(reinterpret_cast<const char*>(data + 1), size - 1);
    try {
        const ibuki::LogReading reading = ibuki::readLogReported(bytes, "fuzz", optionsOf(data[0]));
        const ibuki::Trace& trace = reading.trace;
        for (const ibuki::Channel& channel : trace.channels)
            if (!channel.values.empty() && channel.values.size() != trace.samples()) std::abort();
        for (std::size_t i = 1; i < trace.samples(); ++i)
            if (!(trace.timeS[i] >= trace.timeS[i - 1])) std::abort(); // the axis never goes back
        if (ibuki::words::text(ibuki::readAs(reading.report)).empty()) std::abort();
    } catch (const ibuki::InputError& error) {
        if (ibuki::words::sentence(error).empty()) std::abort();
    }
    return 0;
}
