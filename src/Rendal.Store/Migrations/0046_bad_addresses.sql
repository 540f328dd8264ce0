-- Whether an address is bad decides whether a parcel can go: a round that was prepared before one turned bad, or good again, is behind.
create trigger address_returned_added after insert on address_returned referencing new table as after_it for each statement execute function note_content_change('returned', '', '');
create trigger address_returned_removed after delete on address_returned referencing old table as before_it for each statement execute function note_content_change('returned', '', '');
