from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy.ndimage import minimum_filter1d
from scipy.signal import sosfilt

from ritornel.core.sound.filtering import BLOCK, convolve, impulse_response, running_minimum
from ritornel.core.sound.loudness import _K_WEIGHTING, K_TAPS


class FilteringTest(TestCase):
    """Held to SciPy's, which are known to be right."""

    def test_the_k_weighting_of_finite_length_is_the_recursive_one(self) -> None:
        noise = np.random.default_rng(1).normal(size=(2, BLOCK + 9000))
        padded = np.concatenate([np.zeros((2, K_TAPS - 1)), noise], axis=1)
        found = convolve(padded, impulse_response(_K_WEIGHTING, K_TAPS))
        self.assertLess(np.abs(found - sosfilt(_K_WEIGHTING, noise)).max(), 1e-10)

    @given(st.lists(st.floats(0, 1), min_size=1, max_size=90), st.integers(1, 40))
    def test_the_running_minimum(self, values: list[float], reach: int) -> None:
        given_ = np.array(values)
        expected = minimum_filter1d(given_, 2 * reach + 1, mode="nearest")
        self.assertEqual(running_minimum(given_, reach).tolist(), expected.tolist())

    @given(st.integers(1, 400), st.integers(1, 60))
    def test_convolving_is_numpys(self, count: int, taps: int) -> None:
        chance = np.random.default_rng(count)
        samples, response = chance.normal(size=count + taps - 1), chance.normal(size=taps)
        np.testing.assert_allclose(convolve(samples, response), np.convolve(samples, response, "valid"), atol=1e-10)
