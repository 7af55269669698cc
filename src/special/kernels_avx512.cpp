// See kernels_level.inc.
#include "special/kernels.h"

#include <immintrin.h>
#include <sleef.h>

#define Vec __m512d
#define LANES 8
#define LOAD _mm512_load_pd
#define STORE _mm512_store_pd
#define SET _mm512_set1_pd
#define SQRT _mm512_sqrt_pd
#define SLEEF_U10(name) Sleef_cinz_##name##d8_u10avx512fnofma
#define SLEEF_ERFC Sleef_cinz_erfcd8_u15avx512fnofma
#define FLOOR Sleef_cinz_floord8_avx512fnofma
#define CEIL Sleef_cinz_ceild8_avx512fnofma
#define TABLE kernelsAvx512

#include "special/kernels_level.inc"
