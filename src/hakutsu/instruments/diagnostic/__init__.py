"""The scan link: bytes of SAE J1979 / ISO 15031-5 over ISO 15765-4, an allow-list, and a stand-in that answers them."""
