#include "special/kernels.h"

#include <cstdlib>

namespace coulter {

extern const BlockKernel kernelsSse2[];
extern const BlockKernel kernelsAvx[];
extern const BlockKernel kernelsAvx512[];

InstructionSet bestInstructionSet() {
    static const InstructionSet best = [] {
        if (__builtin_cpu_supports("avx512f") && __builtin_cpu_supports("avx512dq")) return InstructionSet::Avx512;
        if (__builtin_cpu_supports("avx")) return InstructionSet::Avx;
        return InstructionSet::Sse2;
    }();
    return best;
}

BlockKernel blockKernel(Kernel kernel, InstructionSet set) {
    const auto index = static_cast<std::size_t>(kernel);
    switch (set) {
    case InstructionSet::Avx512: return kernelsAvx512[index];
    case InstructionSet::Avx: return kernelsAvx[index];
    case InstructionSet::Sse2: break;
    }
    return kernelsSse2[index];
}

} // namespace coulter
