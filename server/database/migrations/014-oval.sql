-- Round and oval faces have their own area.
ALTER TABLE face MODIFY shape ENUM('flat','oval','profiled','turned','carved') NOT NULL;
