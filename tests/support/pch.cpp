// SPDX-License-Identifier: GPL-3.0-or-later
// Carries the precompiled headers that all tests share.
int main() { return 0; }
