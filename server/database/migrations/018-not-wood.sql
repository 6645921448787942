-- Parts that are no wood have work of their own.
ALTER TABLE face MODIFY substrate
  ENUM('solid','veneer','iron','brass','cane','glass','leather','upholstery') NOT NULL;
