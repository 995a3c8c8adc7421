import subprocess
import sys
from unittest import TestCase

AT_ONCE = """
import sys, threading
sys.setswitchinterval(1e-6)
from ritornel.core.document.decoding import from_json, make_ready, to_json
from ritornel.core.document.show import Show
from ritornel.demo.orlmere import orlmere
make_ready()
show = orlmere()
data, gate, found = to_json(show), threading.Barrier(8), []
def read():
    gate.wait()
    found.append(from_json(data, Show, "The show"))
threads = [threading.Thread(target=read) for _ in range(8)]
for thread in threads: thread.start()
for thread in threads: thread.join()
sys.exit(0 if found == [show] * 8 else 1)
"""


class ReadyTest(TestCase):
    def test_types_that_were_made_ready_are_decoded_by_several_threads_at_once(self) -> None:
        """Without it the process falls over, ten times of ten: see make_ready.

        In a process of its own, in which nothing was decoded before.
        """
        ended = [subprocess.run([sys.executable, "-c", AT_ONCE], capture_output=True, check=False) for _ in range(3)]
        self.assertEqual([(done.returncode, done.stderr.decode()[-300:]) for done in ended if done.returncode], [])
