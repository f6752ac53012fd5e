"""Twenty addresses of ten countries, each with something that is easily written wrongly."""

ADDRESSES = [
    ("GB", {"unit": "Flat 3", "building": "Harbour House", "number": "12", "street": "Kiln Crescent", "town": "Brackwater", "postcode": "QV1 1QF"}),
    ("GB", {"building": "Curlew Cottage", "street": "Mill Lane", "district": "Nether Fold", "town": "Brackwater", "postcode": "QV1 4AB"}),
    ("IE", {"number": "7", "street": "Sráid na Cé", "town": "Baile Úr", "region": "Co. Loch Dubh", "postcode": "A65 F4E2"}),
    ("IE", {"organisation": "Ó Dálaigh & Sons", "street": "Bóthar an Mhuilinn", "town": "Baile Úr", "postcode": "A65 F4E3"}),
    ("FR", {"number": "14 bis", "street": "rue de l'Étoile", "town": "Saint-Égrève-sur-Lys", "postcode": "99120"}),
    ("FR", {"unit": "Appartement 5", "building": "Résidence Les Noyers", "number": "3", "street": "allée des Frênes", "town": "Œuvreville", "postcode": "99340"}),
    ("DE", {"number": "27a", "street": "Große Wörthstraße", "town": "Übersee am Fluß", "postcode": "09999"}),
    ("DE", {"organisation": "Müller & Söhne", "number": "1", "street": "Am Bäckerplatz", "town": "Neuhöfen", "postcode": "09998"}),
    ("NL", {"number": "18", "unit": "2 hoog", "street": "Reeëwal", "town": "Oudewaard", "postcode": "9990 AB"}),
    ("NL", {"po_box": "Postbus 120", "town": "Oudewaard", "postcode": "9990 AC"}),
    ("US", {"number": "4400", "unit": "Apt 12B", "street": "N Larkspur Ave", "town": "Millbrook Falls", "region": "Oregon", "region_code": "OR", "postcode": "97999"}),
    ("US", {"po_box": "PO Box 77", "town": "Millbrook Falls", "region": "Oregon", "region_code": "OR", "postcode": "97998"}),
    ("CA", {"number": "88", "street": "rue Saint-Éloi", "town": "Trois-Ormes", "region": "Quebec", "region_code": "QC", "postcode": "H0H 1A1"}),
    ("CA", {"unit": "Suite 300", "number": "5", "street": "Maple Spur Road", "town": "Fort Aster", "region": "Ontario", "region_code": "ON", "postcode": "K9Z 2B2"}),
    ("BR", {"number": "1500", "street": "Avenida São João do Açude", "district": "Jardim Ipê", "town": "Água Clara Nova", "region": "São Paulo", "region_code": "SP", "postcode": "99999-010"}),
    ("BR", {"number": "s/n", "street": "Rua da Conceição", "district": "Centro", "town": "Água Clara Nova", "region": "São Paulo", "region_code": "SP", "postcode": "99999-020"}),
    ("JP", {"number": "2-14-5", "district": "桜台", "town": "青葉市", "region": "東京都", "region_code": "13", "postcode": "999-0012"}),
    ("JP", {"number": "7-1", "unit": "203号", "building": "みどりハイツ", "district": "緑が丘", "town": "海原市", "region": "大阪府", "region_code": "27", "postcode": "999-0034"}),
    ("AU", {"unit": "Unit 4", "number": "19", "street": "Wattle Bend", "town": "Coolabar Creek", "region": "Victoria", "region_code": "VIC", "postcode": "9999"}),
    ("AU", {"organisation": "Currawong Pianos", "number": "2", "street": "Quay St", "town": "Coolabar Creek", "region": "Victoria", "region_code": "VIC", "postcode": "9998"}),
]  # fmt: skip
