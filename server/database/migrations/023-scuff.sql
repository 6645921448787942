-- Scuffing is one ground; what is laid on it says the rest. Gel was proposed of itself where it was scuffed for it,
-- and is one of its layers already.
UPDATE build_up SET ground = 'scuff' WHERE ground IN ('scuff-and-recoat', 'scuff-and-gel');
