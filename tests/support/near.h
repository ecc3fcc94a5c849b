// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Comparisons with a stated tolerance that say both numbers when they fail.

#include <QtTest>
#include <cmath>

#define QVERIFY_NEAR(actual, expected, tolerance)                                                            \
    do {                                                                                                     \
        const double a_ = (actual);                                                                          \
        const double e_ = (expected);                                                                        \
        QVERIFY2(std::abs(a_ - e_) <= (tolerance), qPrintable(QString("%1: %2, expected %3 within %4")       \
                                                                  .arg(#actual)                              \
                                                                  .arg(a_, 0, 'g', 15)                       \
                                                                  .arg(e_, 0, 'g', 15)                       \
                                                                  .arg(tolerance)));                         \
    } while (false)

#define QVERIFY_REL(actual, expected, relative) QVERIFY_NEAR(actual, expected, (relative)*std::abs(expected))
