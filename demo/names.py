"""Invented names, dealt from a fixed seed; a few of them awkward on purpose."""

from __future__ import annotations

import random

GIVEN = """Ada Aiko Alba Alice Amara Amir Ana Anouk Arlo Asha Ava Ayla Bao Bela Ben Bruno Callum Carla Chidi Clara
Dara Davi Dina Edie Eli Elsa Emil Esme Farah Felix Fern Finn Freya Gita Hana Hugo Ida Iris Isak Ivo Jana Jonas Josie
Jude Kai Kofi Lara Leo Lena Lila Linus Lotte Luca Lucia Mae Malik Mara Mateo Maya Mika Milo Mina Minh Nadia Nell Nia
Nico Noa Noor Ola Omar Oona Orla Oscar Otis Pia Piero Priya Rafa Ravi Remy Rhea Rosa Rowan Ruben Sami Sara Selma Sena
Silas Simran Sipho Sofia Stella Tariq Teo Tilda Tove Uma Viola Wanda Wren Yara Yusuf Zadie Zara Zeno""".split()
FAMILY = """Abara Abbott Adeyemi Ahlgren Akhtar Alderton Amadi Ashdown Bakker Banerjee Barlow Baptiste Beck Bellamy
Bianchi Bishara Blom Bosko Brandt Burrell Castellanos Chandra Chowdhury Clarke Cohen Corrigan Costa Dahl Darwish Demir
Doyle Duarte Eklund Ellwood Eriksen Esposito Falk Farouk Ferreira Fisher Fofana Gallo Gill Grant Haddad Hale Hansen
Haas Hoang Holt Ibekwe Ivers Jankowski Jensen Joshi Kaur Keller Khan Kimura Kovac Lam Larsen Leclerc Lindgren Lowe
Marek Marsh Mbeki Meyer Miah Moreau Moyo Murphy Nair Nakata Novak Nwosu Okoro Olsen Ortega Osei Park Patel Petrov
Pires Quaye Quinn Ramos Reyes Rossi Rowe Sato Schulz Shah Silva Soto Stone Sundaram Tanaka Thorne Toure Uddin Varga
Vega Vogel Walsh Weiss Whitlock Yilmaz Young Zhou Zielinski""".split()
AWKWARD = (
    ("Ångström", "Bo"),
    ("de Souza", "Ana Beatriz"),
    ("O'Neill", "Caoimhe"),
    ("Nguyễn", "Thị Minh Châu"),
    ("", "Sukarni"),
    ("van der Berg-Oyelaran", "Maximiliana Josephine"),
    ("李", "明月"),
    ("Ștefănescu", "Ioana"),
)


def deal(count: int, seed: int, first: tuple[tuple[str, str], ...] = ()) -> list[tuple[str, str]]:
    """``count`` different (family, given) names, those of ``first`` among them."""
    dealer = random.Random(seed)
    found = list(first)
    taken = set(found)
    while len(found) < count:
        name = (dealer.choice(FAMILY), dealer.choice(GIVEN))
        if name not in taken:
            taken.add(name)
            found.append(name)
    return found
