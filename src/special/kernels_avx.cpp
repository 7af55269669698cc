// See kernels_level.inc.
#include "special/kernels.h"

#include <immintrin.h>
#include <sleef.h>

#define Vec __m256d
#define LANES 4
#define LOAD _mm256_load_pd
#define STORE _mm256_store_pd
#define SET _mm256_set1_pd
#define SQRT _mm256_sqrt_pd
#define SLEEF_U10(name) Sleef_cinz_##name##d4_u10avx
#define SLEEF_ERFC Sleef_cinz_erfcd4_u15avx
#define FLOOR Sleef_cinz_floord4_avx
#define CEIL Sleef_cinz_ceild4_avx
#define TABLE kernelsAvx

#include "special/kernels_level.inc"
