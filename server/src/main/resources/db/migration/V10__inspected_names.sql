-- As every other name of a fixed set.
update inspected_place set kind = upper(kind), verdict = upper(verdict);
