-- Each of fifty thousand cards that an intake brings had the row of its book looked up and locked again, and each piece of
-- a file the row of its file, which took nearly half of the time of writing them down. Whoever writes them has made or
-- read that row first; what is left to hold is that it stays, and that is held here, for every table at once.
alter table customer drop constraint customer_book_id_fkey;
alter table stored_file_piece drop constraint stored_file_piece_book_id_file_id_fkey;

create function refuse_to_remove() returns trigger language plpgsql as $$
begin
    raise exception 'A % is not taken away, nor given another number.', replace(tg_table_name, '_', ' ') using errcode = 'foreign_key_violation';
end $$;

create trigger book_stays before delete or update of id on book for each row execute function refuse_to_remove();
create trigger stored_file_stays before delete or update of book_id, id on stored_file for each row execute function refuse_to_remove();
