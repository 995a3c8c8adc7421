from django.test import SimpleTestCase

from ritornel.core.checks.links import leads_nowhere


class NowhereTest(SimpleTestCase):
    def test_what_only_this_machine_or_this_house_knows_leads_nowhere_and_the_rest_of_the_world_does(self) -> None:
        nowhere = ("http://127.0.0.1:8000/", "http://10.0.0.4/", "http://192.168.1.4/x", "https://tower/", "http://")
        somewhere = ("https://orlmere.town/", "http://203.0.113.9/", "https://10.orlmere.town/")
        self.assertEqual([address for address in (*nowhere, *somewhere) if leads_nowhere(address)], list(nowhere))

    def test_letters_need_a_name_and_a_place(self) -> None:
        self.assertEqual(
            [leads_nowhere(f"mailto:{to}") for to in ("bell@orlmere.town", "@orlmere.town", "bell@tower", "bell")],
            [False, True, True, True],
        )
