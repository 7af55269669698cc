// See kernels_level.inc.
#include "special/kernels.h"

#include <immintrin.h>
#include <sleef.h>

#define Vec __m128d
#define LANES 2
#define LOAD _mm_load_pd
#define STORE _mm_store_pd
#define SET _mm_set1_pd
#define SQRT _mm_sqrt_pd
#define SLEEF_U10(name) Sleef_cinz_##name##d2_u10sse2
#define SLEEF_ERFC Sleef_cinz_erfcd2_u15sse2
#define FLOOR Sleef_cinz_floord2_sse2
#define CEIL Sleef_cinz_ceild2_sse2
#define TABLE kernelsSse2

#include "special/kernels_level.inc"
