"""Strike out each rule and each school and say what changes: the table of docs/judgement.md.

A rule acts on the call (points for families), on the numbers (points for trailers, how it dresses a
rig) or on words only. For each a worked water is named in which the first answer is another without it.
"""

from dataclasses import replace
from pathlib import Path
from typing import Any

from bench.agree import LEAN, worked
from heathdrop import catalog as catalogue
from heathdrop.answers import water as answers
from heathdrop.catalog import Catalog, Effect, Rule
from heathdrop.conditions.facts import degree
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.demo import ashmoor

PAGE = Path(__file__).parent.parent / "docs" / "judgement.md"
BEGIN, END = "<!-- struck: begin -->", "<!-- struck: end -->"
#: A rule must be this true of a water to be tried there, and so many waters are tried.
SPEAKS, TRIED = 0.25, 16


def scenarios() -> list[tuple[str, Scenario]]:
    """The worked waters, and Ashmoor Water's, as scenarios without families."""
    found = [
        (w.id, SizeRequest.model_validate({**w.body, "schools": LEAN[w.set]}).scenario()) for w in worked()
    ]
    return found + [
        (row["name"], replace(SizeRequest.model_validate(row["body"]).scenario(), families=()))
        for row in ashmoor.worked()
    ]


def first_of(catalog: Catalog, scenario: Scenario) -> tuple[str, str]:
    """(family, rig) of the first answer under a catalogue."""
    shipped: Any = catalogue.load
    catalogue.load = lambda: catalog  # type: ignore[assignment]
    answers.sizing_of.cache_clear()
    answers._called.cache_clear()
    try:
        best = answers.call_of(scenario, places=1).standings[0]
        return best.family.id, best.best.key
    finally:
        catalogue.load = shipped
        answers.sizing_of.cache_clear()
        answers._called.cache_clear()


def acts(rule: Rule) -> str:
    """Where a rule acts."""
    where = [
        word
        for word, there in (
            ("call", rule.favours),
            ("numbers", rule.trailers or rule.dress),
            ("finish", rule.finish),
        )
        if there
    ]
    return ", ".join(where) if rule.favours or rule.trailers or rule.dress else "words only"


def main() -> None:
    shipped = catalogue.load()
    waters = scenarios()
    usual = {name: first_of(shipped, scenario) for name, scenario in waters}
    facts = {}
    for name, scenario in waters:
        family = usual[name][0]
        sizing = answers.sizing_of(replace(scenario, families=(family,)))
        facts[name] = {k: v for k, v in sizing.facts.items() if k not in ("family", "work")}
    lines = ["| rule | acts on | struck out |", "|---|---|---|"]
    for rule in shipped.rules.values():
        where, said = acts(rule), "–"
        if where != "words only":
            without = replace(shipped, rules={k: v for k, v in shipped.rules.items() if k != rule.id})
            near = [(degree(rule.when, facts[name], missing=True), name, s) for name, s in waters]
            near.sort(key=lambda row: -row[0])
            said = "weighs; the first answer stays in all of these waters"
            for how, name, scenario in near[:TRIED]:
                if how < SPEAKS:
                    break
                then = first_of(without, scenario)
                if then != usual[name]:
                    other = then[0] if then[0] != usual[name][0] else then[1]
                    said = f"{name}: {other} instead of {usual[name][1]}"
                    if then[0] != usual[name][0]:
                        break
        lines.append(f"| {rule.name} | {where} | {said} |")
    lines += ["", "| topic | school | held to |", "|---|---|---|"]
    for topic in shipped.topics.values():
        for school in topic.schools.values():
            said = "the default" if school.id == topic.default else ""
            bare = replace(school.effect, finish={}, by_clarity=None)
            if not said and bare == Effect():
                said = "words only"
            for name, scenario in () if said else waters:
                picks = tuple(sorted({**dict(scenario.schools), topic.id: school.id}.items()))
                for family in shipped.families:
                    one = replace(scenario, families=(family,))
                    if (
                        degree(
                            topic.applies,
                            {**facts[name], "family": family, "work": shipped.families[family].work},
                        )
                        < 0.5
                    ):
                        continue
                    before = answers.sizing_of(one).rigs[0].key
                    after = answers.sizing_of(replace(one, schools=picks)).rigs[0].key
                    if after != before:
                        said = f"{name}: {after} instead of {before}"
                        break
                if said:
                    break
            lines.append(f"| {topic.name} | {school.name} | {said or 'changed nothing in these waters'} |")
    page = PAGE.read_text("utf-8")
    head, rest = page.split(BEGIN)
    PAGE.write_text(head + BEGIN + "\n" + "\n".join(lines) + "\n" + END + rest.split(END)[1], "utf-8")


if __name__ == "__main__":
    main()
